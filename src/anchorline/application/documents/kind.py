"""What a kind of document is: how it is kept and checked, what it names, what goes with it."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable, Mapping, Sequence
from typing import Any, ClassVar, NamedTuple

from anchorline.core.document_changes import Change
from anchorline.core.errors import Problem
from anchorline.store.document_model import Document, StoredKind
from anchorline.store.documents import DocumentStore

from ..services import Services


class Checked(NamedTuple):
    """What there is to say of a document.

    Attributes:
        problems: what stands against publishing it.
        warnings: what should be known of it.
        unreadable: how many of the problems, the first ones, stand against keeping it as whole.
    """

    problems: Sequence[Problem]
    warnings: Sequence[Problem] = ()
    unreadable: int = 0


class Reference(NamedTuple):
    """A document that another one names."""

    kind: str
    key: str


class DocumentKind(ABC):
    """One kind of document.

    Attributes:
        stored: how its documents are kept, and what one is called.
        plural: what several are called.
        keeps_versions: versions of a document that was deleted stay, for what names them.
        out_of_force: what happens where no version is published any more, in a sentence.
    """

    stored: ClassVar[StoredKind]
    plural: ClassVar[str]
    keeps_versions: ClassVar[bool] = False

    @property
    def name(self) -> str:
        """By which the kind is known in the store and among services."""
        return self.stored.name

    def store(self, services: Services) -> DocumentStore:
        """Where its documents are kept."""
        return services.documents[self.name]

    @abstractmethod
    def readable(self, services: Services, document: Document) -> Sequence[Problem]:
        """What stands against keeping a draft that is said to be whole."""

    @abstractmethod
    def checked(self, services: Services, document: Document) -> Checked:
        """All that stands against publishing a document, and what should be known of it."""

    def noticed(self, services: Services, document: Document) -> Checked:
        """What is said of a draft each time that it is kept: of all of it what takes no time."""
        return self.checked(services, document)

    @abstractmethod
    def changes(self, services: Services, old: Document, new: Document) -> Sequence[Change]:
        """What changes from one document to another, in sentences."""

    def changes_when_new(self, services: Services, new: Document) -> Sequence[Change]:  # noqa: ARG002
        """What a document changes of which nothing is published."""
        return ()

    def base(self, services: Services, document: Document) -> Mapping[str, Any]:  # noqa: ARG002
        """What else is true now and is kept with a version."""
        return {}

    def refers_to(self, document: Document) -> Iterable[Reference]:  # noqa: ARG002
        """The documents that a document names."""
        return ()

    def in_use(self, services: Services, key: str) -> str | None:  # noqa: ARG002
        """What stands against deleting a document beside others that name it; None: nothing."""
        return None

    def uses(self, services: Services, key: str) -> Mapping[int, int] | None:  # noqa: ARG002
        """How much was made with each version of a document; None where nothing is made."""
        return None

    def keeping(self, services: Services, key: str, parts: Sequence[str]) -> Mapping[str, int]:  # noqa: ARG002
        """How many things that were made with a document keep something of each of its parts."""
        return {}

    def forget(self, services: Services, key: str) -> None:  # noqa: B027
        """Takes out what goes with a document that is deleted."""
