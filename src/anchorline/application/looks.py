"""Looks at programs' screens: kept for some days, and held against the targets that there are."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from anchorline.core.targets.programs import Look, recognise
from anchorline.core.targets.programs.facts import look_of
from anchorline.core.targets.programs.recognition import Recognition
from anchorline.core.targets.programs.steadiness import SteadyFact, compared
from anchorline.store.database import NotThereError
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.looks import KeptLook

from .once import once
from .services import Services
from .targets import programs_among


class ComparedLook(NamedTuple):
    """A look, with what of it is as in the look before at the same program."""

    look: KeptLook
    facts: Sequence[SteadyFact]


def keep_look(
    services: Services,
    facts: Sequence[Mapping[str, str]],
    machine: str,
    by: str,
    once_by: IdempotencyKey | None,
) -> ComparedLook:
    """Keeps a look.

    Args:
        once_by: by which a repeated request is known.

    Raises:
        NotThereError: the same request kept it before, and it is deleted by now.
    """
    looks = services.looks
    made = once(services, once_by, lambda: looks.keep(list(facts), machine, by).id)
    kept = looks.list()
    look = next((one for one in kept if one.id == made), None)
    if look is None:
        raise NotThereError("This look was kept before, and is deleted by now.")
    return ComparedLook(look, _compared(look, kept))


def compared_looks(services: Services) -> Sequence[ComparedLook]:
    """Looks of the last days, the latest first, each beside the one before at its program."""
    kept = services.looks.list()
    return [ComparedLook(one, _compared(one, kept)) for one in kept]


def _compared(look: KeptLook, kept: Sequence[KeptLook]) -> Sequence[SteadyFact]:
    own = look_of(look.facts)
    program = own.first("program")
    before = [
        seen
        for one in kept
        if one.at < look.at and (seen := look_of(one.facts)).first("program") == program
    ]
    return compared([*before[:1], own])


def recognised(services: Services, look: Look, *, drafts: bool) -> Recognition:
    """Which target a screen is of, and why not the others.

    Args:
        drafts: hold it against drafts, not against what is published.
    """
    if drafts:
        documents = services.targets.drafts()
    else:
        documents = [document for document, _ in services.published_targets.all()]
    return recognise(look, [target.candidate() for target in programs_among(services, documents)])
