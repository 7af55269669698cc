#include "desktop/particulars.h"

#include "drawing/colours.h"
#include "figure/labels.h"
#include "formula/text.h"

#include <QCheckBox>
#include <QColorDialog>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPainter>
#include <QPixmap>
#include <QPolygonF>
#include <QToolButton>
#include <QVBoxLayout>
#include <charconv>

namespace coulter {
namespace {

/// A choice that looks like the other fields: text on a line, with a small angle at its end.
class ChoiceField : public QComboBox {
protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(palette().color(QPalette::Text));
        painter.drawText(rect().adjusted(3, 0, -14, 0), Qt::AlignVCenter | Qt::AlignLeft, currentText());
        const QPointF tip(width() - 8, height() / 2.0 + 2);
        painter.drawPolyline(QPolygonF{tip + QPointF(-3.5, -3.5), tip, tip + QPointF(3.5, -3.5)});
        painter.setPen(
            QPen(hasFocus() ? palette().color(QPalette::Highlight) : palette().color(QPalette::PlaceholderText), 1));
        painter.drawLine(QPointF(0, height() - 0.5), QPointF(width(), height() - 0.5));
    }
};

template <std::size_t N> QStringList words(const std::array<const char*, N>& names) {
    QStringList list;
    for (const char* name : names) list << QString::fromUtf8(name);
    return list;
}

QIcon swatch(const QColor& colour, int size) {
    QPixmap pixmap(size * 2, size);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.fillRect(QRect(0, size / 3, size * 2, size / 3), colour);
    return pixmap;
}

std::optional<double> readNumber(const QString& text) {
    const std::string plain = QString(text).replace(QChar(0x2212), '-').trimmed().toStdString();
    double value = 0;
    const auto [end, error] = std::from_chars(plain.data(), plain.data() + plain.size(), value);
    if (error != std::errc{} || end != plain.data() + plain.size()) return std::nullopt;
    return value;
}

} // namespace

Particulars::Particulars(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent)
    : QScrollArea(parent), session_(session), sheet_(sheet), look_(look) {
    setFrameShape(QFrame::NoFrame);
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setAccessibleName(tr("Particulars"));
    setObjectName("particulars");
    connect(&sheet_, &SheetView::selectionChanged, this, &Particulars::rebuild);
    connect(&sheet_, &SheetView::figureChanged, this, &Particulars::refresh);
    connect(&session_, &DocumentSession::shownChanged, this, &Particulars::refresh);
    connect(&look_, &LookSettings::changed, this, &Particulars::rebuild);
    rebuild();
}

std::size_t Particulars::selectedPlot() const {
    const ShownFigure* shown = sheet_.figure();
    const std::size_t index = sheet_.selection().index;
    if (!shown || index >= shown->figure.curves[0].curves.size()) return SIZE_MAX;
    const std::size_t plot = shown->figure.curves[0].curves[index].plot;
    return plot < session_.document().panels[0].plots.size() ? plot : SIZE_MAX;
}

void Particulars::change(const QString& what, const Change& apply, const QString& mergeKey) {
    if (refreshing_) return;
    Document document = session_.document();
    apply(document);
    session_.edit(std::move(document), what, mergeKey);
}

QLineEdit* Particulars::textField(QFormLayout& form, const QString& name, const std::function<QString()>& read,
                                  const std::function<void(const QString&)>& write) {
    auto* field = new QLineEdit;
    field->setAccessibleName(name);
    form.addRow(name, field);
    refreshers_.push_back([field, read] {
        if (field->hasFocus() && field->isModified()) return;
        field->setText(read());
        if (!field->hasFocus()) field->setCursorPosition(0);
    });
    connect(field, &QLineEdit::editingFinished, this, [this, field, write] {
        if (!field->isModified()) return;
        field->setModified(false);
        write(field->text());
        refresh();
    });
    return field;
}

QDoubleSpinBox* Particulars::numberField(QFormLayout& form, const QString& name, double least, double greatest,
                                         int decimals, double step, const QString& unit,
                                         const std::function<double()>& read,
                                         const std::function<void(double)>& write) {
    auto* field = new QDoubleSpinBox;
    field->setLocale(QLocale::c());
    field->setRange(least, greatest);
    field->setDecimals(decimals);
    field->setSingleStep(step);
    field->setSuffix(unit.isEmpty() ? "" : " " + unit);
    field->setAccessibleName(name);
    field->setKeyboardTracking(false);
    field->setButtonSymbols(QAbstractSpinBox::NoButtons);
    form.addRow(name, field);
    refreshers_.push_back([field, read] { field->setValue(read()); });
    connect(field, &QDoubleSpinBox::valueChanged, this, [this, write](double value) {
        if (!refreshing_) write(value);
    });
    return field;
}

QComboBox* Particulars::choiceField(QFormLayout& form, const QString& name, const QStringList& choices,
                                    const std::function<int()>& read, const std::function<void(int)>& write) {
    auto* field = new ChoiceField;
    field->addItems(choices);
    field->setAccessibleName(name);
    form.addRow(name, field);
    refreshers_.push_back([field, read] { field->setCurrentIndex(read()); });
    connect(field, &QComboBox::activated, this, [write](int index) { write(index); });
    return field;
}

void Particulars::rebuild() {
    refreshers_.clear();
    built_ = sheet_.selection();
    auto* content = new QWidget;
    content->setObjectName("particularsContent");
    auto* column = new QVBoxLayout(content);
    column->setContentsMargins(look_.look().px(14), look_.look().px(12), look_.look().px(14), look_.look().px(8));
    auto* heading = new QLabel;
    QFont font = heading->font();
    font.setBold(true);
    heading->setFont(font);
    column->addWidget(heading);
    auto* form = new QFormLayout;
    form->setFieldGrowthPolicy(QFormLayout::ExpandingFieldsGrow);
    form->setRowWrapPolicy(QFormLayout::DontWrapRows);
    form->setLabelAlignment(Qt::AlignLeft);
    form->setVerticalSpacing(look_.look().px(7));
    column->addLayout(form);
    column->addStretch(1);
    const Selection selection = sheet_.selection();
    if (selection.part == Part::Curve && selectedPlot() != SIZE_MAX) {
        heading->setText(tr("Curve"));
        curveFields(*form);
    } else if (selection.part == Part::XScale || selection.part == Part::XLabel) {
        heading->setText(tr("Horizontal scale"));
        axisFields(*form, true);
    } else if (selection.part == Part::YScale || selection.part == Part::YLabel) {
        heading->setText(tr("Vertical scale"));
        axisFields(*form, false);
    } else if (selection.part == Part::Legend) {
        heading->setText(tr("Legend"));
        legendField(*form, tr("place"));
    } else {
        heading->setText(tr("Sheet"));
        sheetFields(*form);
    }
    setWidget(content);
    refresh();
}

void Particulars::refresh() {
    if (built_ != sheet_.selection() || refreshing_) return;
    refreshing_ = true;
    for (const auto& refresher : refreshers_) refresher();
    refreshing_ = false;
}

void Particulars::curveFields(QFormLayout& form) {
    const std::size_t plot = selectedPlot();
    const auto current = [this, plot]() -> const Plot& {
        static const Plot none;
        const auto& plots = session_.shown().panels[0].plots;
        return plot < plots.size() ? plots[plot] : none;
    };
    const auto set = [this, plot](const QString& what, const std::function<void(Plot&)>& apply,
                                  const QString& mergeKey = {}) {
        change(
            what,
            [&](Document& document) {
                if (plot < document.panels[0].plots.size()) apply(document.panels[0].plots[plot]);
            },
            mergeKey);
    };
    textField(
        form, tr("drawn"), [current] { return QString::fromStdString(current().of); },
        [set](const QString& text) { set(tr("change of what is drawn"), [&](Plot& p) { p.of = text.toStdString(); }); })
        ->setObjectName("curveOf");
    auto* name = textField(
        form, tr("name"), [current] { return QString::fromStdString(current().name.value_or("")); },
        [set](const QString& text) {
            set(tr("change of a name"),
                [&](Plot& p) { p.name = text.isEmpty() ? std::nullopt : std::optional(text.toStdString()); });
        });
    name->setPlaceholderText(tr("derived from the formula"));
    name->setObjectName("curveName");

    auto* row = new QHBoxLayout;
    auto* button = new QToolButton;
    button->setObjectName("curveColour");
    button->setAccessibleName(tr("colour"));
    button->setIconSize({look_.look().px(32), look_.look().px(16)});
    auto* automatic = new QToolButton;
    automatic->setText(tr("automatic"));
    row->addWidget(button);
    row->addWidget(automatic);
    row->addStretch(1);
    form.addRow(tr("colour"), row);
    const std::size_t curve = sheet_.selection().index;
    const auto shownColour = [this, curve] {
        const ShownFigure* shown = sheet_.figure();
        if (!shown || curve >= shown->figure.curves[0].curves.size()) return QColor(Qt::black);
        return toQColor(curveColour(shown->document.panels[0], shown->figure.curves[0].curves[curve]));
    };
    refreshers_.push_back([this, button, automatic, shownColour, current] {
        button->setIcon(swatch(shownColour(), look_.look().px(16)));
        automatic->setEnabled(current().style.colour.has_value());
    });
    connect(button, &QToolButton::clicked, this, [this, set, shownColour] {
        const QColor chosen = QColorDialog::getColor(shownColour(), this, tr("Colour of the curve"));
        if (chosen.isValid()) set(tr("change of a colour"), [&](Plot& p) { p.style.colour = toColour(chosen); });
    });
    connect(automatic, &QToolButton::clicked, this,
            [set] { set(tr("automatic colour"), [](Plot& p) { p.style.colour.reset(); }); });

    numberField(
        form, tr("width"), 0.05, 5, 2, 0.05, "mm", [current] { return current().style.width; },
        [set](double value) {
            set(
                tr("change of a line's width"), [&](Plot& p) { p.style.width = value; }, "width");
        })
        ->setObjectName("curveWidth");
    choiceField(
        form, tr("line"), words(linePatternNames), [current] { return static_cast<int>(current().style.pattern); },
        [set](int index) {
            set(tr("change of a line's pattern"), [&](Plot& p) { p.style.pattern = static_cast<LinePattern>(index); });
        })
        ->setObjectName("curvePattern");
}

void Particulars::axisFields(QFormLayout& form, bool horizontal) {
    const auto axis = [this, horizontal]() -> const Axis& {
        const coulter::Panel& panel = session_.shown().panels[0]; // QFrame has a Panel of its own
        return horizontal ? panel.x : panel.y;
    };
    const auto set = [this, horizontal](const QString& what, const std::function<void(Axis&)>& apply) {
        change(what, [&](Document& document) { apply(horizontal ? document.panels[0].x : document.panels[0].y); });
    };
    auto* label = textField(
        form, tr("label"), [axis] { return QString::fromStdString(axis().label.value_or("")); },
        [set](const QString& text) {
            set(tr("change of a label"),
                [&](Axis& a) { a.label = text.isEmpty() ? std::nullopt : std::optional(text.toStdString()); });
        });
    label->setPlaceholderText(tr("derived from the page"));
    label->setObjectName("axisLabel");
    const auto limits = [this, horizontal] {
        const ShownFigure* shown = sheet_.figure();
        if (!shown || shown->figure.layouts.empty()) return Limits{};
        const AxisMap& map = horizontal ? shown->figure.layouts[0].map.x : shown->figure.layouts[0].map.y;
        return Limits{map.low, map.high};
    };
    const auto limit = [&](const QString& name, bool low) {
        return textField(
            form, name,
            [limits, low] { return QString::fromStdString(roundedNumber(low ? limits().low : limits().high, 8)); },
            [set, limits, low](const QString& text) {
                const auto value = readNumber(text);
                if (!value) return;
                Limits wanted = limits();
                (low ? wanted.low : wanted.high) = *value;
                if (wanted.low < wanted.high) set(tr("change of limits"), [&](Axis& a) { a.limits = wanted; });
            });
    };
    limit(tr("from"), true)->setObjectName("axisLow");
    limit(tr("to"), false)->setObjectName("axisHigh");
    auto* automatic = new QToolButton;
    automatic->setText(tr("automatic"));
    form.addRow("", automatic);
    refreshers_.push_back([automatic, axis] { automatic->setEnabled(axis().limits.has_value()); });
    connect(automatic, &QToolButton::clicked, this,
            [set] { set(tr("automatic limits"), [](Axis& a) { a.limits.reset(); }); });
    auto* grid = new QCheckBox(tr("lines at the numbers"));
    grid->setAccessibleName(tr("grid"));
    grid->setObjectName("axisGrid");
    form.addRow(tr("grid"), grid);
    refreshers_.push_back([grid, axis] { grid->setChecked(axis().grid); });
    connect(grid, &QCheckBox::clicked, this,
            [set](bool on) { set(tr("change of the grid"), [&](Axis& a) { a.grid = on; }); });
}

void Particulars::legendField(QFormLayout& form, const QString& name) {
    choiceField(
        form, name, words(legendPlaceNames),
        [this] { return static_cast<int>(session_.shown().panels[0].legend.place); },
        [this](int index) {
            change(tr("change of the legend"), [&](Document& document) {
                document.panels[0].legend.place = static_cast<LegendPlace>(index);
                document.panels[0].legend.at.reset();
            });
        })
        ->setObjectName("legendPlace");
}

void Particulars::sheetFields(QFormLayout& form) {
    const auto sheet = [this]() -> const Sheet& { return session_.shown().sheet; };
    const auto set = [this](const QString& what, const std::function<void(Sheet&)>& apply) {
        change(
            what, [&](Document& document) { apply(document.sheet); }, what);
    };
    textField(
        form, tr("title"), [this] { return QString::fromStdString(session_.shown().panels[0].title); },
        [this](const QString& text) {
            change(tr("change of the title"),
                   [&](Document& document) { document.panels[0].title = text.toStdString(); });
        })
        ->setObjectName("sheetTitle");
    numberField(
        form, tr("width"), leastSheet, greatestSheet, 1, 1, "mm", [sheet] { return sheet().width; },
        [set](double v) { set(tr("change of the sheet's width"), [&](Sheet& s) { s.width = v; }); })
        ->setObjectName("sheetWidth");
    numberField(
        form, tr("height"), leastSheet, greatestSheet, 1, 1, "mm", [sheet] { return sheet().height; },
        [set](double v) { set(tr("change of the sheet's height"), [&](Sheet& s) { s.height = v; }); })
        ->setObjectName("sheetHeight");
    numberField(
        form, tr("letters"), 2, 100, 1, 0.5, "pt", [sheet] { return sheet().textSize; },
        [set](double v) { set(tr("change of the letters' size"), [&](Sheet& s) { s.textSize = v; }); });
    numberField(
        form, tr("tolerance"), 0.001, 10, 3, 0.005, "mm", [sheet] { return sheet().tolerance; },
        [set](double v) { set(tr("change of the tolerance"), [&](Sheet& s) { s.tolerance = v; }); });
    numberField(
        form, tr("bitmap"), leastResolution, greatestResolution, 0, 50, tr("dots/inch"),
        [sheet] { return sheet().resolution; },
        [set](double v) { set(tr("change of the resolution"), [&](Sheet& s) { s.resolution = v; }); });
    legendField(form, tr("legend"));
}

} // namespace coulter
