"""The published program targets, kept at hand: on disk, so that a slow service delays no key."""

from __future__ import annotations

import hashlib
import json
import threading
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from platformdirs import user_cache_path
from pydantic import ValidationError

from anchorline.client import AnchorlineError, Client, ProgramTargetDocument
from anchorline.core.faults import Faults
from anchorline.core.mapping import mapping_fills
from anchorline.core.targets.programs import Look, Recognition, recognise
from anchorline.core.targets.programs.fields import ProgramField, read_program_field
from anchorline.core.targets.programs.plan import WritingPlan, read_plan
from anchorline.core.targets.programs.recognition import Candidate
from anchorline.core.targets.programs.signature import read_signature
from anchorline.private_files import write_whole
from anchorline.wire.program_targets import ProgramAddressSchema


@dataclass(frozen=True, slots=True)
class AddressOfTarget:
    """An address of a target, with its plan; `asks` is what the finder is asked for."""

    key: str
    label: str
    plan: WritingPlan
    asks: ProgramAddressSchema


@dataclass(frozen=True, slots=True)
class KnownTarget:
    """A target; `version` 0 is a draft."""

    key: str
    title: str
    version: int
    candidate: Candidate
    addresses: tuple[AddressOfTarget, ...]
    fields: tuple[ProgramField, ...]


def known_target(document: ProgramTargetDocument, version: int) -> KnownTarget:
    """A target as the agent uses it."""
    faults, content = Faults(), document.model_dump(mode="json")
    fields = tuple(
        read_program_field(_without_nothing(one), "", faults) for one in content["fields"]
    )
    screens = tuple(read_signature(one, "", faults) for one in content["screens"])
    addresses = tuple(
        AddressOfTarget(
            key=asks.key,
            label=asks.label,
            plan=read_plan(
                _without_nothing(entry["writing"]),
                fields,
                mapping_fills(entry["mapping"]),
                "",
                faults,
            ),
            asks=asks,
        )
        for entry, asks in zip(content["addresses"], document.addresses, strict=True)
    )
    return KnownTarget(
        key=document.key,
        title=document.title,
        version=version,
        candidate=Candidate(document.key, document.title, screens),
        addresses=addresses,
        fields=fields,
    )


class KnownTargets:
    """All targets that the service has published, as they were last heard of."""

    def __init__(self, client: Client, url: str) -> None:
        self._client = client
        name = hashlib.sha256(url.encode()).hexdigest()[:16]
        self._file = user_cache_path("anchorline") / f"targets-{name}.json"
        self.targets: Sequence[KnownTarget] = ()
        self._asking = threading.Lock()
        self._problem = ""
        self._read_kept()

    def refresh(self) -> None:
        """Asks the service anew; AnchorlineError where it is away, and the known ones stay."""
        published = self._client.programs.published()
        self.targets = [known_target(one.document, one.version) for one in published]
        kept = [one.model_dump(mode="json") for one in published]
        self._file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(self._file, json.dumps(kept).encode())

    def refresh_quietly(self) -> str:
        """The same, once where several ask at a time; what went wrong, empty where nothing did."""
        if not self._asking.acquire(blocking=False):
            return self._problem
        try:
            self.refresh()
            self._problem = ""
        except (AnchorlineError, OSError) as error:
            self._problem = str(error)
        finally:
            self._asking.release()
        return self._problem

    def recognise(self, look: Look) -> Recognition:
        """Which target a look is of."""
        return recognise(look, [one.candidate for one in self.targets])

    def get(self, key: str) -> KnownTarget | None:
        """A target by its key."""
        return next((one for one in self.targets if one.key == key), None)

    @property
    def kept_in(self) -> Path:
        """The file that they are kept in."""
        return self._file

    def _read_kept(self) -> None:
        try:
            kept = json.loads(self._file.read_text("utf-8"))
            self.targets = [
                known_target(
                    ProgramTargetDocument.model_validate(one["document"]), int(one["version"])
                )
                for one in kept
            ]
        except FileNotFoundError:
            return
        except (OSError, ValueError, KeyError, TypeError, ValidationError):
            # Of another release, or half written: the service is asked in any case.
            self.targets = ()


def _without_nothing(given: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in given.items() if value not in ("", None, [])}
