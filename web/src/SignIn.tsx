// The way in where accounts are in force; over the page where a session ended, so that nothing on it is lost.
import { useState } from "react";
import * as api from "./design/api";
import { Button } from "./ui/Button";

export function SignIn({ over = false, done }: { over?: boolean; done: () => void }) {
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [refusal, setRefusal] = useState("");
  const enter = async () => {
    try {
      await api.signIn(name, password);
      done();
    } catch (error) {
      setPassword("");
      setRefusal(error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.");
    }
  };
  return (
    <main className={over ? "fixed inset-0 z-40 grid place-items-center bg-black/50" : "grid h-full place-items-center"}>
      <form
        aria-label="Sign in"
        className="w-80 rounded border border-rule bg-sheet p-5"
        onSubmit={(event) => {
          event.preventDefault();
          void enter();
        }}
      >
        <h1 className="text-[18px] font-semibold">Knollstack</h1>
        <p className="mb-3 text-mute">
          {over ? "The session has ended. Sign in to go on: what is on the page is kept." : "Casing programs from the ground to the BOPs"}
        </p>
        <label className="mb-2 block">
          Name
          <input
            className="cell mt-0.5 border-rule!"
            autoComplete="username"
            // the only thing to do here
            // eslint-disable-next-line jsx-a11y/no-autofocus
            autoFocus
            value={name}
            onChange={(event) => {
              setName(event.target.value);
            }}
          />
        </label>
        <label className="mb-3 block">
          Password
          <input
            className="cell mt-0.5 border-rule!"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => {
              setPassword(event.target.value);
            }}
          />
        </label>
        {refusal && (
          <p role="alert" className="mb-2 text-brick">
            {refusal}
          </p>
        )}
        <Button kind="act" type="submit" disabled={name.trim() === "" || password === ""}>
          Sign in
        </Button>
      </form>
    </main>
  );
}
