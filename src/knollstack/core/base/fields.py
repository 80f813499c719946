"""What every part of the document is made of: bounded numbers with their quantity, and a frozen base.

A field's title, help and group, and the quantity of its type, are the only place where it is described: schema, policy
bench, table columns, import targets, comparison and help all read them from here (`document/described.py`).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import core_unit

MAX_DEPTH_FT = 40_000.0
MOST_LBF = 5_000_000.0


@dataclass(frozen=True)
class Of:
    """Marks the type of a number with its quantity; the schema then tells quantity and unit."""

    quantity: Quantity

    def __get_pydantic_json_schema__(self, core_schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        schema = handler(core_schema)
        schema["quantity"], schema["unit"] = self.quantity, core_unit(self.quantity)
        return schema


def number(low: float, high: float) -> Any:
    return Field(strict=True, allow_inf_nan=False, ge=low, le=high)


def told(title: str, default: Any = ..., *, help: str = "", group: str = "", offered: tuple[float, ...] = ()) -> Any:
    """A field with its title, and where it says more than its title its help; `group` is its heading in policy.

    `offered` are the usual values of a number, to choose from.
    """
    extra: Any = ({"group": group} if group else {}) | ({"offered": list(offered)} if offered else {})
    return Field(default, title=title, description=help or None, json_schema_extra=extra or None)


def listed(title: str, most: int, *, least: int = 0, default: Any = (), help: str = "", group: str = "") -> Any:
    """A list of rows with its title and its bounds."""
    extra: Any = {"group": group} if group else None
    return Field(
        default, title=title, description=help or None, min_length=least, max_length=most, json_schema_extra=extra
    )


Depth = Annotated[float, number(0, MAX_DEPTH_FT), Of("depth")]
Height = Annotated[float, number(0, 500), Of("depth")]
Emw = Annotated[float, number(0.5, 30), Of("emw")]
Fluid = Annotated[float, number(0, 30), Of("emw")]
Margin = Annotated[float, number(0, 5), Of("emw")]
Size = Annotated[float, number(1, 48), Of("size")]
Bore = Annotated[float, number(0.5, 20), Of("diameter")]
Wall = Annotated[float, number(0.05, 4), Of("diameter")]
PieceHeight = Annotated[float, number(0, 400), Of("height")]
Pressure = Annotated[float, number(0, 50_000), Of("pressure")]
Temperature = Annotated[float, number(-60, 700), Of("temperature")]
TemperatureChange = Annotated[float, number(-500, 700), Of("temperature_change")]
Factor = Annotated[float, number(0.5, 5), Of("factor")]
Gradient = Annotated[float, number(0.01, 0.4), Of("gradient")]
Volume = Annotated[float, number(0, 10_000), Of("volume")]
LinearWeight = Annotated[float, number(1, 1_000), Of("linear_weight")]
Load = Annotated[float, number(0, MOST_LBF), Of("force")]
Strength = Annotated[float, number(1_000, 20_000_000), Of("force")]
MixWater = Annotated[float, number(3, 20), Of("water")]
Excess = Annotated[float, number(0, 5), Of("fraction")]
Name = Annotated[str, Field(max_length=200)]
Note = Annotated[str, Field(max_length=20_000)]
ID_PATTERN, DAY_PATTERN = r"^[A-Za-z0-9_-]+$", r"^(\d{4}-\d{2}-\d{2})?$"
MOMENT_PATTERN = r"^\d{4}-\d{2}-\d{2} \d{2}:\d{2}$"
Day = Annotated[str, Field(pattern=DAY_PATTERN)]
"""A date as YYYY-MM-DD, or nothing."""
Moment = Annotated[str, Field(pattern=MOMENT_PATTERN)]
"""A time of the rig's clock as YYYY-MM-DD HH:MM."""
Id = Annotated[str, Field(min_length=1, max_length=40, pattern=ID_PATTERN)]
"""Names a row for as long as it lives: other rows refer to it by this, whatever is put in before it or taken away."""


class Part(BaseModel):
    """Base of every part of the document: immutable, and no unknown key passes in silence."""

    model_config = ConfigDict(frozen=True, extra="forbid")
