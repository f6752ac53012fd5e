"""The page for a form that cannot be shown just now, in the languages of most visitors."""

BUSY_WORDS: dict[str, dict[str, str]] = {
    "en": {
        "title": "The form cannot be shown just now",
        "again": "This page tries again by itself every few seconds.",
    },
    "cy": {
        "title": "Ni ellir dangos y ffurflen ar hyn o bryd",
        "again": "Bydd y dudalen hon yn rhoi cynnig arall arni bob ychydig eiliadau.",
    },
    "de": {
        "title": "Das Formular kann gerade nicht angezeigt werden",
        "again": "Diese Seite versucht es alle paar Sekunden von selbst wieder.",
    },
    "es": {
        "title": "El formulario no se puede mostrar en este momento",
        "again": "Esta página lo vuelve a intentar sola cada pocos segundos.",
    },
    "fr": {
        "title": "Le formulaire ne peut pas être affiché pour le moment",
        "again": "Cette page réessaie d’elle-même toutes les quelques secondes.",
    },
    "it": {
        "title": "Il modulo non può essere mostrato in questo momento",
        "again": "Questa pagina riprova da sola ogni pochi secondi.",
    },
    "ja": {
        "title": "ただいまフォームを表示できません",
        "again": "このページは数秒ごとに自動で再読み込みします。",
    },
    "nl": {
        "title": "Het formulier kan op dit moment niet worden getoond",
        "again": "Deze pagina probeert het om de paar seconden vanzelf opnieuw.",
    },
    "pt": {
        "title": "O formulário não pode ser mostrado neste momento",
        "again": "Esta página tenta novamente sozinha a cada poucos segundos.",
    },
}
