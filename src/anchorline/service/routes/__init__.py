"""The API's endpoints, one module for each group: what each takes, who may call it, its answers.

Each module declares its endpoints on a router (`..endpoints`). `dataset_answers` and
`own_layout_preview` write the longer answers; `drafts` is what forms and own layouts have in
common, `uploads` receives files, `idempotency_header` reads the header of that name.
"""
