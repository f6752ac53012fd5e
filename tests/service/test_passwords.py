import pytest

from anchorline.service.passwords import password_problem


@pytest.mark.parametrize(
    ("password", "said"),
    [
        ("nine chrs", "At least 10 characters."),
        ("", "At least 10 characters."),
        ("ada.brindle@firm.example", "The e-mail address is no password"),
        ("Ada.Brindle@Firm.Example ", "The e-mail address is no password"),
        ("ada.brindle", "The e-mail address is no password"),
        ("1234567890", "one of the commonest"),
        ("Password123", "one of the commonest"),
        ("qwertyuiop", "one of the commonest"),
        ("aaaaaaaaaaaa", "one of the commonest"),
    ],
)
def test_what_would_be_tried_first_is_not_taken(password, said):
    assert said in (password_problem(password, "ada.brindle@firm.example") or "")


@pytest.mark.parametrize("password", ["ten chars!", "kiln crescent 12 walks", "9f$Kk2.v_Qx1"])
def test_others_are(password):
    assert password_problem(password, "ada.brindle@firm.example") is None
