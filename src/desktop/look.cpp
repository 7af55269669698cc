#include "desktop/look.h"

#include <QApplication>
#include <QFont>
#include <QPalette>
#include <QPointer>
#include <QSettings>
#include <QStyleFactory>
#include <algorithm>

namespace coulter {

QColor Look::ground() const { return dark ? QColor(0x1b, 0x1a, 0x18) : QColor(0xf1, 0xef, 0xea); }
QColor Look::page() const { return dark ? QColor(0x24, 0x23, 0x20) : QColor(0xff, 0xfe, 0xfb); }
QColor Look::ink() const { return dark ? QColor(0xe9, 0xe5, 0xdc) : QColor(0x1f, 0x1d, 0x1a); }
QColor Look::muted() const { return dark ? QColor(0x9c, 0x96, 0x8a) : QColor(0x7b, 0x75, 0x6a); }
QColor Look::hairline() const { return dark ? QColor(0x3b, 0x39, 0x34) : QColor(0xdc, 0xd8, 0xce); }
QColor Look::accent() const { return dark ? QColor(0xd9, 0x8c, 0x6a) : QColor(0x9a, 0x41, 0x2c); }
QColor Look::wrong() const { return dark ? QColor(0xf0, 0x7b, 0x86) : QColor(0xb3, 0x15, 0x38); }
QColor Look::faintAccent() const { return dark ? QColor(0x3d, 0x30, 0x2a) : QColor(0xf6, 0xec, 0xe6); }

LookSettings::LookSettings(QObject* parent)
    : QObject(parent), basePointSize_(std::max(8.0, QApplication::font().pointSizeF())) {
    const QSettings settings;
    look_.dark = settings.value("dark", false).toBool();
    look_.values = settings.value("values", true).toBool();
    look_.scale = std::clamp(settings.value("scale", 1.0).toDouble(), 0.7, 2.5);
    QApplication::setStyle(QStyleFactory::create("Fusion"));
    apply();
}

LookSettings& LookSettings::ofProgram() {
    static QPointer<LookSettings> look; // goes with the application
    if (!look) look = new LookSettings(qApp);
    return *look;
}

void LookSettings::setDark(bool dark) {
    look_.dark = dark;
    apply();
}

void LookSettings::showValues(bool shown) {
    look_.values = shown;
    apply();
}

void LookSettings::changeScale(double factor) {
    look_.scale = factor == 0 ? 1 : std::clamp(look_.scale * factor, 0.7, 2.5);
    apply();
}

void LookSettings::apply() {
    QSettings settings;
    settings.setValue("dark", look_.dark);
    settings.setValue("values", look_.values);
    settings.setValue("scale", look_.scale);
    QPalette palette;
    palette.setColor(QPalette::Window, look_.ground());
    palette.setColor(QPalette::WindowText, look_.ink());
    palette.setColor(QPalette::Base, look_.page());
    palette.setColor(QPalette::AlternateBase, look_.ground());
    palette.setColor(QPalette::Text, look_.ink());
    palette.setColor(QPalette::Button, look_.ground());
    palette.setColor(QPalette::ButtonText, look_.ink());
    palette.setColor(QPalette::ToolTipBase, look_.page());
    palette.setColor(QPalette::ToolTipText, look_.ink());
    palette.setColor(QPalette::PlaceholderText, look_.muted());
    palette.setColor(QPalette::Highlight, look_.accent());
    palette.setColor(QPalette::HighlightedText, look_.page());
    palette.setColor(QPalette::Link, look_.accent());
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, role, look_.muted());
    QApplication::setPalette(palette);
    QFont font = QApplication::font();
    font.setPointSizeF(basePointSize_ * look_.scale);
    QApplication::setFont(font);
    qApp->setStyleSheet(styleSheet());
    emit changed();
}

/// One sheet for the whole program: a second one on a window would make Qt style everything twice.
QString LookSettings::styleSheet() const {
    QString text =
        "QToolButton{border:none;padding:[4]px [8]px;color:[ink];background:transparent;border-radius:3px}"
        "QToolButton:hover,QToolButton:focus{background:[faint]}"
        "QToolButton:disabled{color:[muted]}"
        "#particularsContent QToolButton{border:1px solid [line]}"
        "QToolButton::menu-indicator{image:none}"
        "QLineEdit,QDoubleSpinBox,QPlainTextEdit{border:none;border-bottom:1px solid "
        "[line];background:[page];padding:[2]px;color:[ink]}"
        "QLineEdit:focus,QDoubleSpinBox:focus,QPlainTextEdit:focus{border-bottom:1px solid [accent]}"
        "QMenu{background:[page];border:1px solid [line];padding:4px}"
        "QMenu::item{padding:4px 22px}QMenu::item:selected{background:[faint];color:[ink]}"
        "QToolTip{background:[page];color:[ink];border:1px solid [line]}"
        "#notices{background:[faint];border-bottom:1px solid [line]}"
        "#bar{background:[page];border-bottom:1px solid [line]}#documentButton{font-weight:bold}"
        "#side,#particulars,#particularsContent{background:[page]}"
        "#left,#scratch{background:[page]}#scratch{border-top:1px solid [line]}"
        "#paneHeading{background:[page];border-top:1px solid [line];font-weight:bold;padding:[8]px [10]px [4]px [10]px}"
        "#remarks{border:none;background:[page];padding:0 [10]px}#remarks::item{padding:[3]px 0}"
        "#panes::handle{background:[line]}"
        "QCheckBox{color:[ink]}QCheckBox::indicator{width:[10]px;height:[10]px;border:1px solid [muted];"
        "border-radius:2px;background:[page]}"
        "QCheckBox::indicator:checked{background:[accent];border-color:[accent]}"
        "QCheckBox::indicator:focus{border-color:[accent]}"
        "#sampleTable{border:1px solid [line];background:[page];gridline-color:[faint]}"
        "QHeaderView{background:[page];border:none}"
        "QHeaderView::section{background:[page];color:[muted];border:none;padding:[3]px}"
        "QTableCornerButton::section{background:[page];border:none}"
        "QProgressBar{border:1px solid "
        "[line];background:[page];max-height:6px}QProgressBar::chunk{background:[accent]}";
    for (const int size : {2, 3, 4, 8, 10, 14})
        text.replace(QString("[%1]").arg(size), QString::number(look_.px(size)));
    const std::pair<const char*, QColor> colours[] = {{"[line]", look_.hairline()},     {"[ink]", look_.ink()},
                                                      {"[page]", look_.page()},         {"[accent]", look_.accent()},
                                                      {"[faint]", look_.faintAccent()}, {"[muted]", look_.muted()}};
    for (const auto& [name, colour] : colours) text.replace(name, colour.name());
    return text;
}

Colour toColour(const QColor& colour) {
    return {static_cast<std::uint8_t>(colour.red()), static_cast<std::uint8_t>(colour.green()),
            static_cast<std::uint8_t>(colour.blue())};
}
QColor toQColor(Colour colour) { return {colour.red, colour.green, colour.blue}; }

} // namespace coulter
