"""An equation as it stands in the registry, set as mathematics: text in, MathML out.

The registry's own text is the only copy of an equation. Fractions are read from `/`, roots from `√(…)`, subscripts
from `_` and from the small figures and letters of Unicode, powers from `^` and the raised figures; words of two
letters and more that are no function stay words. What cannot be read as mathematics is set as text, never dropped.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from html import escape

_TOKEN = re.compile(
    r"""(?P<number>\d+(?:\.\d+)?)
      |(?P<name>[^\W\d_₀₁₂₃₄₅₆₇₈₉ₐₑᵢₘₒₚₛₜ½²³⁶]+)
      |(?P<under>_[A-Za-z0-9]+|[₀₁₂₃₄₅₆₇₈₉ₐₑᵢₘₒₚₛₜ]+)
      |(?P<over>\^[−-]?[\d.]+|[²³⁶]+)
      |(?P<space>\s+)
      |(?P<other>.)""",
    re.VERBOSE,
)
_PLAIN = str.maketrans("₀₁₂₃₄₅₆₇₈₉ₐₑᵢₘₒₚₛₜ²³⁶", "0123456789aeimopst236")
_FUNCTIONS = {"sin", "cos", "tan", "sinh", "cosh", "exp", "min", "max"}
_QUANTITIES = {"SF", "BF", "RF", "DL", "SG", "MAASP", "ln", "EMW"}
_CLOSING = {"(": ")", "[": "]"}


@dataclass(frozen=True)
class _Token:
    kind: str
    text: str


def _tokens(text: str) -> list[_Token]:
    return [_Token(str(m.lastgroup), m.group()) for m in _TOKEN.finditer(text)]


class _Reader:
    """Reads products and fractions; everything between them is set in the order in which it stands."""

    def __init__(self, text: str) -> None:
        self.tokens, self.at = _tokens(text), 0

    def peek(self, skip: int = 0) -> _Token:
        index = self.at + skip
        return self.tokens[index] if index < len(self.tokens) else _Token("end", "")

    def take(self) -> _Token:
        token = self.peek()
        self.at += 1
        return token

    def row(self, closing: str = "") -> str:
        """Everything up to the closing bracket or the end."""
        parts: list[str] = []
        while self.peek().kind != "end" and (not closing or self.peek().text != closing):
            parts.append(self.fraction())
        return "".join(parts)

    def fraction(self) -> str:
        """A factor, or factors over factors: `a·b/c` has the product of what joins it directly on top."""
        above = self.product()
        while self._slash():
            below = self.product(strip=True)
            above = f"<mfrac>{_row(_bare(above))}{_row(_bare(below))}</mfrac>"
            above += self.rest()
        return above

    def _slash(self) -> bool:
        skip = 1 if self.peek().kind == "space" and self.peek(1).text == "/" else 0
        if self.peek(skip).text != "/":
            return False
        self.at += skip + 1
        if self.peek().kind == "space":
            self.at += 1
        return True

    def product(self, strip: bool = False) -> str:
        """Factors joined by a dot or by nothing; under a line only one factor, since `a/b·c` is (a/b)·c."""
        operand = self._starts_operand()
        return self.factor() + (self.rest() if operand and not strip else "")

    def _starts_operand(self) -> bool:
        return self.peek().kind in ("number", "name") or self.peek().text in ("(", "√", "½")

    def rest(self) -> str:
        """What follows a factor within its product."""
        parts: list[str] = []
        while True:
            token = self.peek()
            if token.text == "·":
                self.take()
                parts += ["<mo>·</mo>", self.factor()]
            elif self._starts_operand():
                parts.append(self.factor())
            else:
                return "".join(parts)

    def factor(self) -> str:
        token = self.take()
        if token.kind == "space":
            return self._space()
        if token.text in _CLOSING:
            inner = self.row(_CLOSING[token.text])
            self.take()
            base = _bracketed(inner)
        elif token.text == "√" and self.peek().text == "(":
            self.take()
            base = f"<msqrt>{_row(self.row(')'))}</msqrt>"
            self.take()
        elif token.text in _FUNCTIONS:
            return self._scripts(_leaf(token)) + self._argument()
        else:
            base = _leaf(token)
        return self._scripts(base)

    def _argument(self) -> str:
        """What a function is of, in brackets or after a blank: one factor with it, over and under a line too."""
        if self.peek().text == "(":
            return self.factor()
        if self.peek().kind == "space" and self.peek(1).kind in ("name", "number"):
            self.take()
            return f'<mspace width="0.17em"/>{self.factor()}'
        return ""

    def _space(self) -> str:
        """Room between words and after commas and brackets; signs bring their own."""
        before, after = self.tokens[max(0, self.at - 2)], self.peek()
        signs = (before.kind == "other" and before.text not in ",;:)") or (after.kind == "other" and after.text != "(")
        return "" if signs else '<mspace width="0.25em"/>'

    def _scripts(self, base: str) -> str:
        under = over = ""
        while self.peek().kind in ("under", "over"):
            token = self.take()
            body = token.text.lstrip("_^").translate(_PLAIN)
            tag = "mn" if body.lstrip("−-").replace(".", "").isdigit() else "mi"
            script = f"<{tag}>{escape(body)}</{tag}>"
            if token.kind == "under":
                under += script
            else:
                over += script
        if under and over:
            return f"<msubsup>{base}{_row(under)}{_row(over)}</msubsup>"
        if under:
            return f"<msub>{base}{_row(under)}</msub>"
        return f"<msup>{base}{_row(over)}</msup>" if over else base


def _leaf(token: _Token) -> str:
    text = escape(token.text)
    if token.kind == "number":
        return f"<mn>{text}</mn>"
    if token.text == "½":
        return "<mfrac><mn>1</mn><mn>2</mn></mfrac>"
    if token.kind == "name":
        known = token.text in _QUANTITIES or token.text in _FUNCTIONS
        symbol = len(token.text) == 1 or known or not token.text.isascii()
        upright = ' mathvariant="normal"' if token.text in _FUNCTIONS else ""
        return f"<mi{upright}>{text}</mi>" if symbol else f"<mtext>{text}</mtext>"
    return f"<mo>{text}</mo>"


def _row(inner: str) -> str:
    return f"<mrow>{inner}</mrow>"


def _bracketed(inner: str) -> str:
    """Brackets grow only around what is taller than a line."""
    grow = "" if "<mfrac" in inner else ' stretchy="false"'
    return f"<mrow><mo{grow}>(</mo>{inner}<mo{grow}>)</mo></mrow>"


def _bare(part: str) -> str:
    """A fraction's line holds together what its brackets held: they are left off where they are all of a part."""
    match = re.fullmatch(r"<mrow><mo[^>]*>\(</mo>(.*)<mo[^>]*>\)</mo></mrow>", part)
    if match is None:
        return part
    depth = 0
    for mark in re.findall(r"<mo[^>]*>([()])</mo>", match.group(1)):
        depth += 1 if mark == "(" else -1
        if depth < 0:
            return part
    return match.group(1)


def _line(text: str) -> str:
    reader = _Reader(text)
    inner = ""
    while reader.peek().kind != "end":  # a bracket that closes nothing is set as it stands
        inner += reader.row()
        if reader.peek().kind != "end":
            inner += _leaf(reader.take())
    return f'<math display="block"><mrow>{inner}</mrow></math>'


def mathml(symbolic: str) -> str:
    """An equation of the registry as MathML, one element a line: lines end at a bar or at two spaces."""
    return "".join(_line(line) for line in re.split(r" \| |(?<=[,;])  +", symbolic))
