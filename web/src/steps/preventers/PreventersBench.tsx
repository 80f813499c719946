// Preventers: the stack on each string while the next section is drilled, its class from the surface pressure.
import { useBench, useDocument, useSnapshot } from "../../design/context";
import { freshId } from "../../design/ids";
import { useReference } from "../../design/reference";
import { Choice } from "../../ui/Field";
import { Headline } from "../../ui/Headline";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";

export function PreventersBench() {
  const evaluation = useSnapshot("evaluation");
  const method = useDocument((d) => d.policy.pipe.burst_method);
  const carriers =
    evaluation?.preventers.strings.flatMap((row, index) => (row.elements.length > 0 || row.pressure_psi !== null ? [index] : [])) ?? [];
  return (
    <Panel title="BOP stacks">
      <Scroll label="BOP stacks">
        {carriers.length === 0 ? (
          <Empty>No stack follows yet: it needs strings and surface pressures.</Empty>
        ) : (
          <div className="flex flex-wrap gap-5">
            {carriers.map((index) => (
              <StackCard key={index} index={index} />
            ))}
          </div>
        )}
        <p className="mt-4 max-w-prose text-[12px] text-mute">
          Class from the maximum anticipated surface pressure by policy&apos;s method, now {method}, never more than the shoe above takes.
          Elements are the fewest that are common for the class; local rules prevail.
        </p>
      </Scroll>
    </Panel>
  );
}

function StackCard({ index }: { index: number }) {
  const evaluation = useSnapshot("evaluation");
  const document = useSnapshot("document");
  const { session } = useBench();
  const units = useUnits();
  const classes = useReference().at("/preventers/*/class_psi").offered ?? [];
  const string = evaluation!.strings[index]!;
  const row = evaluation!.preventers.strings[index]!;
  const place = document.preventers.findIndex((s) => s.string === string.id);
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const height = (inches: number) => `${units.number(inches, "height", 0)} ${units.unit("height")}`;
  const decide = (value: string) => {
    const others = document.preventers.filter((s) => s.string !== string.id);
    const id = document.preventers[place]?.id ?? freshId("/preventers");
    const mine = value === "" ? [] : [{ id, string: string.id, class_psi: Number(value), elements: row.elements.map((e) => e.element) }];
    session.edit([{ path: "/preventers", value: [...others, ...mine] }]);
  };
  return (
    <section aria-label={`Stack on ${size}`} className="w-[200px]">
      <h3 className="text-[13px] font-semibold">
        On {size} <span className="font-normal text-mute">{string.role}</span>
      </h3>
      <dl className="pairs text-[12.5px]">
        <dt className="text-mute">
          <Term>surface pressure</Term>
        </dt>
        <dd className="text-right">
          {row.pressure_psi === null ? (
            "unknown"
          ) : (
            <Headline working={`wellhead/${index}/surface_pressure`} title={`surface pressure, ${size}`}>
              {units.text(row.pressure_psi, "pressure")}
            </Headline>
          )}
        </dd>
        {string.role !== "conductor" && (
          <>
            <dt className="text-mute">class, {units.unit("pressure")}</dt>
            <dd className="w-24 text-right">
              <Choice
                label={`Class of the stack on ${size}`}
                place={place < 0 ? `/preventers/${index}/class_psi` : `/preventers/${place}`}
                value={row.decided ? String(row.class_psi) : row.class_psi === null ? "" : String(row.class_psi)}
                decided={row.decided}
                options={[
                  { value: "", text: "proposed" },
                  ...classes.map((c) => ({ value: String(c), text: units.number(c, "pressure", 0) })),
                ]}
                onCommit={decide}
              />
            </dd>
            <dt className="text-mute">
              <Term>flange</Term>
            </dt>
            <dd className="text-right">{row.flange ?? "unknown"}</dd>
          </>
        )}
      </dl>
      <ol className="mt-2 flex flex-col items-center">
        {row.elements.map((element, i) => (
          <li
            key={i}
            className={`mb-0.5 flex items-center justify-between border border-mute px-2 py-1 text-[12px] ${
              element.element === "annular" ? "w-40 rounded-lg" : element.element === "drilling spool" ? "w-32" : "w-48"
            }`}
          >
            <span>{element.title}</span>
            <span className="text-mute">{element.height_in === null ? "height unknown" : height(element.height_in)}</span>
          </li>
        ))}
      </ol>
      <p className="text-center text-[12px] text-mute">{row.height_in !== null && `stack ${height(row.height_in)}`}</p>
    </section>
  );
}
