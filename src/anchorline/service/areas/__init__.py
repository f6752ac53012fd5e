"""The API's calls by area: what each asks for, who may call it, and what it answers.

An area is a module that declares its endpoints (`..endpoints`). `dataset_answers` and
`own_layout_preview` write the longer answers of theirs; `drafts` is what the areas of drafted
things do alike, `uploads` how a file comes in, `idempotency` how a repeated POST is told.
"""
