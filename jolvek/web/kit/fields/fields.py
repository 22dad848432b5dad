"""Form fields that read figures as people type them, the quick start's form, and refusals put at
their field.
"""

from __future__ import annotations

from typing import Any

from wtforms import Field, RadioField, SelectMultipleField, validators
from wtforms.fields.choices import SelectChoice
from wtforms.widgets import CheckboxInput, ListWidget, TextInput

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError
from jolvek.core.hydro.families import FAMILIES
from jolvek.web.kit import display
from jolvek.web.kit.language import tr


def allowed(record: type, key: str) -> tuple[float, float]:
    """The range that a record allows a field."""
    found: tuple[float, float] = record.RANGES[key]  # type: ignore[attr-defined]
    return found


class QuantityField(Field):
    """A figure with a unit; `data` is SI. What was typed stays in the field when it cannot be
    read.
    """

    widget = TextInput()

    def __init__(
        self,
        label: str,
        quantity: str,
        low: float,
        high: float,
        needed: bool = False,
        hint: str = "",
        **kwargs: Any,
    ) -> None:
        super().__init__(label, **kwargs)
        self.quantity, self.low, self.high, self.needed, self.hint = (
            quantity,
            low,
            high,
            needed,
            hint,
        )
        self.typed: str | None = None
        self.unfinished = ""  # what the row still needs before it is kept

    @property
    def unit(self) -> str:
        """The unit shown behind the field."""
        return display.current()[self.quantity]

    @property
    def si(self) -> float:
        """The figure of a field that is needed."""
        assert self.data is not None
        return float(self.data)

    @property
    def _wanted(self) -> str:
        name, example = typed_figures.name(self.quantity), typed_figures.EXAMPLES[self.quantity]
        return tr("needed: type a %(name)s, for example %(example)s", name=name, example=example)

    def _value(self) -> str:
        if self.typed is not None:
            return self.typed
        return display.current().entry(self.data, self.quantity)

    def process_formdata(self, valuelist: list[str]) -> None:
        """Read the typed text into SI, or refuse it with what was read and what is allowed."""
        if not valuelist:
            self.data = None
            return
        if self.object_data is not None and valuelist[0] == display.current().entry(
            self.object_data, self.quantity
        ):
            self.data = self.object_data  # not touched: what was kept stays to the last digit
            return
        self.typed, self.data = valuelist[0], None
        text = valuelist[0].strip()
        if not text:
            if self.needed:
                raise ValueError(self._wanted)
            return
        choice = display.current()
        try:
            value = typed_figures.parse(text, self.quantity, choice[self.quantity])
        except JolvekError as error:
            raise ValueError(str(error)) from None
        if not self.low <= value <= self.high:
            low, high = choice.full(self.low, self.quantity), choice.full(self.high, self.quantity)
            raise ValueError(
                tr("read “%(text)s”; allowed is %(low)s to %(high)s", text=text, low=low, high=high)
            )
        if self.quantity == "count" and value != int(value):
            raise ValueError(tr("read “%(text)s”; a whole number is needed", text=text))
        self.data = value

    def pre_validate(self, form: Any) -> None:
        """A needed field that was not sent at all is refused too."""
        if self.needed and self.data is None and not self.process_errors:
            raise validators.StopValidation(self._wanted)


class FamilyField(RadioField):
    """The kind of hull, by silhouette; an unknown one is named."""

    def __init__(self, label: str, **kwargs: Any) -> None:
        super().__init__(
            label,
            choices=[SelectChoice(f.id, f.name) for f in FAMILIES.values()],
            validate_choice=False,
            **kwargs,
        )

    def pre_validate(self, form: Any) -> None:
        """Refuse what is not a family."""
        if self.data in (None, "", "None"):
            raise validators.StopValidation(tr("choose the kind of boat"))
        if self.data not in FAMILIES:
            raise validators.StopValidation(
                tr("read “%(x)s”; allowed is one of the boats shown", x=self.data)
            )


class ChecksField(SelectMultipleField):
    """Several choices as check boxes."""

    widget = ListWidget(prefix_label=False)
    option_widget = CheckboxInput()
