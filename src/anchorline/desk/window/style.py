"""How the agent's windows look."""

STYLE = """
QWidget#desk { background: #ffffff; border: 1px solid #8c9bab; }
QLabel { color: #1d2939; font-size: 14px; }
QLabel#head { font-size: 13px; font-weight: 600; color: #1d2939; }
QLabel#hint { font-size: 12px; color: #475467; }
QLabel#problem { color: #912018; }
QLineEdit { font-size: 17px; padding: 9px 11px; border: 1px solid #667085; border-radius: 4px;
            background: #ffffff; color: #101828; selection-background-color: #175cd3; }
QLineEdit:focus, QComboBox:focus, QSpinBox:focus { border: 2px solid #175cd3; padding: 8px 10px; }
QListWidget { border: none; font-size: 15px; outline: none; color: #101828; background: #ffffff; }
QListWidget::item { padding: 6px 11px; border-radius: 4px; }
QListWidget::item:selected { background: #d1e0ff; color: #101828; }
QComboBox, QSpinBox { font-size: 15px; padding: 6px 9px; border: 1px solid #667085;
                      border-radius: 4px; }
QPushButton { font-size: 14px; padding: 7px 14px; border: 1px solid #667085; border-radius: 4px;
              background: #f2f4f7; color: #1d2939; }
QPushButton:default { background: #175cd3; border-color: #175cd3; color: #ffffff; }
QPushButton:focus { border: 2px solid #175cd3; }
QPushButton:default:focus { border: 2px solid #101828; }
"""
WIDTH = 580
