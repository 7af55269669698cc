#include "desktop/particulars.h"

#include "desktop/choice_field.h"
#include "drawing/colours.h"
#include "figure/edits.h"
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
#include <QToolButton>
#include <QVBoxLayout>
#include <charconv>

namespace coulter {
namespace {

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
    if (!shown) return SIZE_MAX;
    const PanelCurves& drawn = shown->figure.curves[0];
    const bool field = sheet_.selection().part == Part::Field;
    if (index >= (field ? drawn.fields.size() : drawn.curves.size())) return SIZE_MAX;
    const std::size_t plot = field ? drawn.fields[index].plot : drawn.curves[index].plot;
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
    builtForSpace_ = showsSpace();
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
        axisFields(*form, &coulter::Panel::x);
    } else if (selection.part == Part::YScale || selection.part == Part::YLabel) {
        heading->setText(tr("Vertical scale"));
        axisFields(*form, &coulter::Panel::y);
    } else if (selection.part == Part::ColourScale || selection.part == Part::ColourLabel) {
        heading->setText(tr("Colour scale"));
        axisFields(*form, &coulter::Panel::colour);
    } else if (selection.part == Part::Field && selectedPlot() != SIZE_MAX) {
        heading->setText(tr("Field"));
        fieldFields(*form);
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

bool Particulars::showsSpace() const {
    const ShownFigure* shown = sheet_.figure();
    return shown && !shown->figure.layouts.empty() && shown->figure.layouts[0].space.shown;
}

void Particulars::refresh() {
    if (builtForSpace_ != showsSpace() && !refreshing_) return rebuild();
    if (built_ != sheet_.selection() || refreshing_) return;
    refreshing_ = true;
    for (const auto& refresher : refreshers_) refresher();
    refreshing_ = false;
}

const Plot& Particulars::plotShown(std::size_t plot) const {
    static const Plot none;
    const auto& plots = session_.shown().panels[0].plots;
    return plot < plots.size() ? plots[plot] : none;
}

void Particulars::changePlot(std::size_t plot, const QString& what, const std::function<void(Plot&)>& apply,
                             const QString& mergeKey) {
    change(
        what,
        [&](Document& document) {
            if (plot < document.panels[0].plots.size()) apply(document.panels[0].plots[plot]);
        },
        mergeKey);
}

QCheckBox* Particulars::checkField(QFormLayout& form, const QString& name, const QString& meaning,
                                   const std::function<bool()>& read, const std::function<void(bool)>& write) {
    auto* box = new QCheckBox(meaning);
    box->setAccessibleName(name);
    form.addRow(name, box);
    refreshers_.push_back([box, read] { box->setChecked(read()); });
    connect(box, &QCheckBox::clicked, this, write);
    return box;
}

void Particulars::fieldFields(QFormLayout& form) {
    const std::size_t plot = selectedPlot();
    const auto current = [this, plot]() -> const Plot& { return plotShown(plot); };
    const auto set = [this, plot](const QString& what, const std::function<void(Plot&)>& apply) {
        changePlot(plot, what, apply);
    };
    textField(
        form, tr("drawn"), [current] { return QString::fromStdString(current().of); },
        [set](const QString& text) { set(tr("change of what is drawn"), [&](Plot& p) { p.of = text.toStdString(); }); })
        ->setObjectName("fieldOf");
    choiceField(
        form, tr("fill"), words(fieldFillNames), [current] { return static_cast<int>(current().style.fill); },
        [set](int index) {
            set(tr("change of the fill"), [&](Plot& p) { p.style.fill = static_cast<FieldFill>(index); });
        })
        ->setObjectName("fieldFill");
    checkField(
        form, tr("cells"), tr("lines round each"), [current] { return current().style.mesh; },
        [set](bool on) { set(tr("lines round the cells"), [&](Plot& p) { p.style.mesh = on; }); })
        ->setObjectName("fieldMesh");
    const ShownFigure* shown = sheet_.figure();
    const std::array<std::string, 2> variables = shown->figure.curves[0].fields[sheet_.selection().index].variables;
    auto* swap = new QToolButton;
    swap->setText(tr("%1 to the right").arg(QString::fromStdString(variables[1])));
    swap->setObjectName("fieldSwap");
    form.addRow(tr("directions"), swap);
    refreshers_.push_back([this, swap] {
        const ShownFigure* now = sheet_.figure();
        const std::size_t index = sheet_.selection().index;
        if (now && index < now->figure.curves[0].fields.size())
            swap->setText(
                tr("%1 to the right").arg(QString::fromStdString(now->figure.curves[0].fields[index].variables[1])));
    });
    connect(swap, &QToolButton::clicked, this, [this, set] {
        const ShownFigure* now = sheet_.figure();
        const std::size_t index = sheet_.selection().index;
        if (!now || index >= now->figure.curves[0].fields.size()) return;
        const std::string across = now->figure.curves[0].fields[index].variables[1];
        set(tr("exchange of the directions"), [&](Plot& p) { p.across = across; });
    });
}

void Particulars::curveFields(QFormLayout& form) {
    const std::size_t plot = selectedPlot();
    const auto current = [this, plot]() -> const Plot& { return plotShown(plot); };
    const auto set = [this, plot](const QString& what, const std::function<void(Plot&)>& apply,
                                  const QString& mergeKey = {}) { changePlot(plot, what, apply, mergeKey); };
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
    checkField(
        form, tr("jumps"), tr("dots at the ends"), [current] { return current().style.jumpEnds; },
        [set](bool on) { set(tr("dots at jumps"), [&](Plot& p) { p.style.jumpEnds = on; }); })
        ->setObjectName("curveJumps");
    finerRow(form);
}

/// More points without a mouse: for what is in view, as often as wanted; and back to the usual number.
void Particulars::finerRow(QFormLayout& form) {
    auto* row = new QHBoxLayout;
    auto* more = new QToolButton;
    more->setText(tr("more in view"));
    more->setObjectName("curveMore");
    auto* usual = new QToolButton;
    usual->setText(tr("usual"));
    usual->setObjectName("curveUsual");
    row->addWidget(more);
    row->addWidget(usual);
    row->addStretch(1);
    form.addRow(tr("points"), row);
    const std::size_t plot = selectedPlot();
    refreshers_.push_back([this, plot, usual] { usual->setEnabled(!plotShown(plot).finer.empty()); });
    connect(more, &QToolButton::clicked, this, [this, plot] {
        const ShownFigure* shown = sheet_.figure();
        const std::size_t index = sheet_.selection().index;
        if (!shown || index >= shown->figure.curves[0].curves.size()) return;
        const Curve& curve = shown->figure.curves[0].curves[index];
        const AxisMap& x = shown->figure.layouts[0].map.x;
        const double low = curve.isFunction() ? std::max(curve.interval.low, x.low) : curve.interval.low,
                     high = curve.isFunction() ? std::min(curve.interval.high, x.high) : curve.interval.high;
        if (low < high) changePlot(plot, tr("more points"), [&](Plot& p) { p.finer = withFiner(p.finer, low, high); });
    });
    connect(usual, &QToolButton::clicked, this,
            [this, plot] { changePlot(plot, tr("usual number of points"), [](Plot& p) { p.finer.clear(); }); });
}

void Particulars::axisFields(QFormLayout& form, Axis coulter::Panel::*which) {
    const auto axis = [this, which]() -> const Axis& { return session_.shown().panels[0].*which; };
    const auto set = [this, which](const QString& what, const std::function<void(Axis&)>& apply) {
        change(what, [&](Document& document) { apply(document.panels[0].*which); });
    };
    auto* label = textField(
        form, tr("label"), [axis] { return QString::fromStdString(axis().label.value_or("")); },
        [set](const QString& text) {
            set(tr("change of a label"),
                [&](Axis& a) { a.label = text.isEmpty() ? std::nullopt : std::optional(text.toStdString()); });
        });
    label->setPlaceholderText(tr("derived from the page"));
    label->setObjectName("axisLabel");
    const auto map = [this, which] {
        const ShownFigure* shown = sheet_.figure();
        if (!shown || shown->figure.layouts.empty()) return AxisMap{};
        const PanelLayout& layout = shown->figure.layouts[0];
        return which == &coulter::Panel::x   ? layout.map.x
               : which == &coulter::Panel::y ? layout.map.y
                                             : layout.colours.map;
    };
    const auto limits = [map] { return Limits{map().low, map().high}; };
    choiceField(
        form, tr("scale"), words(scaleNames), [map] { return static_cast<int>(map().kind); },
        [set, limits](int index) {
            const auto kind = static_cast<ScaleKind>(index);
            set(tr("change of a scale"), [&](Axis& a) {
                a.scale = kind;
                if (kind == ScaleKind::Logarithmic && !(limits().low > 0)) a.limits.reset();
            });
        })
        ->setObjectName("axisScale");
    const auto limit = [&](const QString& name, bool low) {
        return textField(
            form, name,
            [limits, low] { return QString::fromStdString(roundedNumber(low ? limits().low : limits().high, 8)); },
            [set, limits, map, low](const QString& text) {
                const auto value = readNumber(text);
                if (!value || (map().kind == ScaleKind::Logarithmic && !(*value > 0))) return;
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
    if (which == &coulter::Panel::colour) return;
    checkField(
        form, tr("grid"), tr("lines at the numbers"), [axis] { return axis().grid; },
        [set](bool on) { set(tr("change of the grid"), [&](Axis& a) { a.grid = on; }); })
        ->setObjectName("axisGrid");
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
    checkField(
        form, tr("scales"), tr("equal both ways"),
        [this] { return session_.shown().panels[0].equalScales.value_or(false); },
        [this](bool on) {
            change(tr("equal scales"), [&](Document& document) { document.panels[0].equalScales = on; });
        })
        ->setObjectName("equalScales");
    if (!showsSpace()) return;
    const auto viewField = [&](const QString& name, double View::*angle, double most) {
        return numberField(
            form, name, -most, most, 0, 5, "°", [this, angle] { return session_.shown().panels[0].view.*angle; },
            [this, angle](double v) {
                change(
                    tr("turn of the view"), [&](Document& document) { document.panels[0].view.*angle = v; }, "view");
            });
    };
    viewField(tr("seen from"), &View::azimuth, 360)->setObjectName("viewAzimuth");
    viewField(tr("height"), &View::elevation, 90)->setObjectName("viewElevation");
}

} // namespace coulter
