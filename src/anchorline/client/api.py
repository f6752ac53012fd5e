"""The calls of the API, one method each."""

from __future__ import annotations

from functools import cached_property
from types import TracebackType
from typing import TYPE_CHECKING

from anchorline.wire.session import OverviewAnswer

from .finding import FindingCalls
from .forms import FormCalls
from .formulas import FormulaCalls
from .layouts import LayoutCalls
from .mappings import MappingCalls
from .phones import PhoneCalls
from .records import RecordCalls
from .transport import Transport

if TYPE_CHECKING:
    from .activity import Activity
    from .datasets import Datasets
    from .forms import Forms
    from .keys import Keys
    from .own_layouts import OwnLayouts
    from .programs import Programs
    from .target_mappings import TargetMappings
    from .targets import Targets


class Client(
    FindingCalls, LayoutCalls, FormCalls, MappingCalls, FormulaCalls, RecordCalls, PhoneCalls
):
    """Calls one Anchorline service. All methods raise the errors of `errors`.

    Args:
        url: the service's address, such as `http://127.0.0.1:8470`.
        key: a server or browser key.
        transport: a transport of one's own, instead of the two above.
    """

    def __init__(
        self, url: str = "", key: str | None = None, *, transport: Transport | None = None
    ) -> None:
        super().__init__(transport or Transport(url, key))

    # Each group is loaded when it is asked for: all of them take longer than most calls.

    @cached_property
    def datasets(self) -> Datasets:
        """The calls on reference data."""
        from .datasets import Datasets

        return Datasets(self._transport)

    @cached_property
    def forms(self) -> Forms:
        """The calls on forms as documents."""
        from .forms import Forms

        return Forms(self._transport)

    @cached_property
    def own_layouts(self) -> OwnLayouts:
        """The calls on administrators' own layouts."""
        from .own_layouts import OwnLayouts

        return OwnLayouts(self._transport)

    @cached_property
    def keys(self) -> Keys:
        """The calls on keys."""
        from .keys import Keys

        return Keys(self._transport)

    @cached_property
    def activity(self) -> Activity:
        """What is called, and how many addresses were fetched."""
        from .activity import Activity

        return Activity(self._transport)

    @cached_property
    def targets(self) -> Targets:
        """The calls on pages and programs that are not ours."""
        from .targets import Targets

        return Targets(self._transport)

    @cached_property
    def target_mappings(self) -> TargetMappings:
        """Mappings of targets while they are made."""
        from .target_mappings import TargetMappings

        return TargetMappings(self._transport)

    @cached_property
    def programs(self) -> Programs:
        """Looks at programs' screens, and runs on them."""
        from .programs import Programs

        return Programs(self._transport)

    def __enter__(self) -> Client:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.close()

    def close(self) -> None:
        """Closes all connections."""
        self._transport.close()

    # The whole

    def overview(self) -> OverviewAnswer:
        """The overview: reference data, forms, records, and how well capture goes."""
        return self._get("overview", OverviewAnswer)
