#include "desktop/particulars.h"
#include "desktop/translation.h"

#include "drawing/colours.h"
#include "drawing/sheet_ink.h"
#include "figure/edits.h"
#include "figure/scale_settings.h"
#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "plots/plot_kind.h"
#include "plots/telling.h"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <charconv>
#include <cmath>

namespace coulter {
namespace {

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

void Particulars::change(const QString& what, const std::function<void(Document&)>& apply, const QString& mergeKey) {
    auto document = sheet_.editable(path_);
    if (!document || path_.panel >= document->panels.size()) return;
    apply(*document);
    session_.edit(std::move(*document), what, mergeKey);
}

void Particulars::changePlot(const QString& what, const std::function<void(Plot&)>& apply, const QString& mergeKey) {
    change(
        what,
        [&](Document& document) {
            if (Plot* plot = plotAt(document, path_)) apply(*plot);
        },
        mergeKey);
}

Plot Particulars::plotShown() const {
    const Plot* plot = plotAt(session_.shown(), path_);
    return plot ? *plot : Plot{};
}

std::size_t Particulars::furtherCount() const {
    const coulter::Panel* panel = panelAt(session_.shown(), path_);
    return panel ? panel->further.size() : 0;
}

bool Particulars::showsSpace() const {
    const PanelFigure* panel = sheet_.shownPanel();
    return panel && panel->frame().space;
}

std::optional<Limits> Particulars::refinableNow() const {
    const Drawn* drawn = sheet_.shownPlot();
    return drawn ? refinable(*drawn, sheet_.shownPanel()->frameOf(*drawn)) : std::nullopt;
}

bool Particulars::isPanel() const { return path_.kind == ItemKind::Panel || path_.kind == ItemKind::Title; }

QString Particulars::shape() const {
    const QString panels = QString::number(session_.shown().panels.size()) + " panels ";
    if (path_.kind == ItemKind::Sheet || isPanel()) { // with a list of what is drawn
        const coulter::Panel* panel = panelAt(session_.shown(), path_);
        const PanelFigure* figure = sheet_.shownPanel();
        QString plots = panels + (showsSpace() ? "in space" : figure && figure->frame().polar ? "round" : "");
        for (const Plot& plot : panel ? panel->plots : std::vector<Plot>())
            plots += '\n' + QString::fromStdString(plot.of + " " + plot.kind);
        return plots;
    }
    if (const Note* note = noteAt(session_.shown(), path_))
        return QString::fromStdString(note->kind) + QString::number(note->at.size());
    const Drawn* drawn = sheet_.shownPlot();
    return QString(drawn && drawn->caseCount > 1 ? "family " : "") +
           QString::fromStdString(plotShown().kind + " " + plotShown().of) + (showsSpace() ? " in space" : "") +
           (refinableNow() ? " finer" : "") + QString::number(furtherCount());
}

void Particulars::rebuild() {
    // The keyboard stays here, in the field of the same name; and what was there may be the very field whose signal led
    // here, so that it goes later.
    QString focused;
    if (QWidget* before = widget()) {
        if (before->isAncestorOf(QApplication::focusWidget())) {
            focused = QApplication::focusWidget()->objectName();
            setFocus();
        }
        takeWidget()->deleteLater();
    }
    path_ = sheet_.selection();
    shape_ = shape();
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
    column->addLayout(form);
    column->addStretch(1);
    fields_ = new FormFields(*form, look_, content);
    const bool scale = path_.kind == ItemKind::Scale || path_.kind == ItemKind::ScaleLabel;
    if (path_.kind == ItemKind::Plot && plotAt(session_.shown(), path_)) {
        heading->setText(tr("Plot %1").arg(path_.index + 1));
        plotFields(*fields_);
    } else if (scale && panelAt(session_.shown(), path_)) {
        heading->setText(path_.index == acrossScale    ? tr("Horizontal scale")
                         : path_.index >= furtherScale ? tr("Vertical scale %1").arg(path_.index - furtherScale + 2)
                         : path_.index == upScale      ? tr("Vertical scale")
                         : path_.index == uprightScale ? tr("Upright scale")
                                                       : tr("Colour scale"));
        scaleFields(*fields_);
    } else if (path_.kind == ItemKind::Legend) {
        heading->setText(tr("Legend"));
        legendField(*fields_, tr("place"));
    } else if (const Note* note = noteAt(session_.shown(), path_)) {
        heading->setText(tr("Note: %1").arg(spoken(note->kind)));
        noteFields(*fields_);
    } else if (isPanel()) {
        heading->setText(tr("Panel %1").arg(path_.panel + 1));
        panelFields(*fields_);
    } else {
        heading->setText(tr("Sheet"));
        sheetFields(*fields_);
    }
    setWidget(content);
    refresh();
    if (!focused.isEmpty()) {
        if (auto* field = content->findChild<QWidget*>(focused)) field->setFocus();
    }
}

void Particulars::refresh() {
    if (path_ != sheet_.selection()) return;
    if (shape_ != shape()) return rebuild();
    fields_->refresh();
}

void Particulars::plotFields(FormFields& fields) {
    const PlotKind* kind = findPlotKind(plotShown().kind);
    if (!kind) return;
    fields
        .text(
            tr("drawn"), [this] { return QString::fromStdString(plotShown().of); },
            [this](const QString& text) {
                changePlot(tr("change of what is drawn"), [&](Plot& p) { p.of = text.toStdString(); });
            })
        ->setObjectName("plotOf");
    std::vector<const PlotKind*> kinds = kindsThatFit(readPage(session_.shown()), plotShown());
    QStringList names;
    for (const PlotKind* each : kinds) names << spoken(each->name);
    auto* choice = fields.choice(
        tr("kind"), [names] { return names; },
        [this, kinds] {
            const auto is = [&](const PlotKind* each) { return each->name == plotShown().kind; };
            const auto at = std::ranges::find_if(kinds, is);
            return at == kinds.end() ? -1 : static_cast<int>(at - kinds.begin());
        },
        [this, kinds](int index) {
            changePlot(tr("another kind of plot"),
                       [&](Plot& p) { p = inKind(std::move(p), *kinds[static_cast<std::size_t>(index)]); });
        });
    choice->setObjectName("plotKind");
    choice->setToolTip(tr("How it is drawn; K on the sheet goes on to the next"));
    auto* drawAs = new QToolButton;
    drawAs->setText(tr("Draw as…"));
    drawAs->setObjectName("drawAs");
    drawAs->setToolTip(tr("Pictures of it in every kind that fits; D on the sheet"));
    fields.row("", drawAs, {});
    connect(drawAs, &QToolButton::clicked, this, [this] { emit sheet_.drawAsWanted(path_); });
    const Drawn* shownDrawn = sheet_.shownPlot();
    const bool family = shownDrawn && shownDrawn->path == path_ && shownDrawn->caseCount > 1;
    if (!family) memberAlone_ = false;
    if (family) {
        fields
            .choice(
                tr("applies to"),
                [this] {
                    return QStringList{tr("all members"), tr("member %1").arg(path_.part + 1)};
                },
                [this] { return memberAlone_ ? 1 : 0; },
                [this](int index) {
                    memberAlone_ = index == 1;
                    rebuild();
                })
            ->setObjectName("memberChoice");
    }
    if (kind->swatch) {
        auto* name = fields.text(
            tr("name"),
            [this] {
                const Plot plot = plotShown();
                const bool own = memberAlone_ && path_.part < plot.members.size();
                return QString::fromStdString(
                    (memberAlone_ ? own ? plot.members[path_.part].name : std::nullopt : plot.name).value_or(""));
            },
            [this](const QString& text) {
                changePlot(tr("change of a name"), [&](Plot& p) {
                    const auto wanted = text.isEmpty() ? std::nullopt : std::optional(text.toStdString());
                    (memberAlone_ ? memberOf(p, path_.part).name : p.name) = wanted;
                    trimMembers(p);
                });
            });
        name->setPlaceholderText(tr("derived from the formula"));
        name->setObjectName("plotName");
    }
    scaleField(fields);
    for (const Setting* setting : kind->settings) {
        if (memberAlone_ && !setting->isStyle) continue; // what is drawn is the same for all
        fields.setting(
            *setting,
            [this] {
                const Plot plot = plotShown();
                Settings settings = plot.settings;
                if (memberAlone_ && path_.part < plot.members.size()) {
                    for (const auto& [key, value] : plot.members[path_.part].settings) settings[key] = value;
                }
                return settings;
            },
            [this, setting](std::optional<SettingValue> value) {
                const bool merges = setting->type == SettingType::Number;
                changePlot(
                    tr("change of %1").arg(spoken(setting->label)),
                    [&](Plot& p) {
                        if (!memberAlone_) return set(p.settings, *setting, std::move(value));
                        Settings& own = memberOf(p, path_.part).settings;
                        if (value)
                            own[setting->key] = std::move(*value);
                        else
                            own.erase(setting->key);
                        trimMembers(p);
                    },
                    merges ? setting->key : "");
            },
            [this] {
                const Drawn* drawn = sheet_.shownPlot();
                return drawn ? inkOf(session_.shown().sheet).of(drawn->colour) : inkColour;
            },
            [this] {
                std::vector<std::string> variables;
                if (const Drawn* drawn = sheet_.shownPlot()) {
                    for (const VariableSampling& each : samplingOf(*drawn)) variables.push_back(each.variable);
                }
                return variables;
            });
        for (const Setting* other : kind->settings) {
            if (std::string_view(other->key) != setting->needs) continue;
            fields.showWhile(*setting, [this, other] {
                return std::string_view(other->words[word(plotShown().settings, *other)]) != "none";
            });
        }
    }
    fields.foldRare(unfolded_);
    if (refinableNow()) finerRow(fields);
}

/// More points without a mouse: for what is in view, as often as wanted; and back to the usual number.
void Particulars::finerRow(FormFields& fields) {
    auto* more = new QToolButton;
    more->setText(tr("more in view"));
    more->setObjectName("plotMore");
    auto* usual = new QToolButton;
    usual->setText(tr("as usual"));
    usual->setObjectName("plotUsual");
    fields.row(tr("samples"), more, {});
    fields.row("", usual, [this, usual] { usual->setEnabled(!plotShown().finer.empty()); });
    connect(more, &QToolButton::clicked, this, [this] {
        if (const auto part = refinableNow())
            changePlot(tr("more points"), [&](Plot& p) { p.finer = withFiner(p.finer, part->low, part->high); });
    });
    connect(usual, &QToolButton::clicked, this,
            [this] { changePlot(tr("usual number of points"), [](Plot& p) { p.finer.clear(); }); });
}

void Particulars::scaleFields(FormFields& fields) {
    const auto axis = [this] {
        const Axis* at = axisAt(session_.shown(), path_);
        return at ? *at : Axis{};
    };
    const auto set = [this](const QString& what, const std::function<void(Axis&)>& apply) {
        change(what, [&](Document& document) {
            if (Axis* at = axisAt(document, path_)) apply(*at);
        });
    };
    // Of a scale that panels share, for all of them.
    const auto setAll = [this](const QString& what, const std::function<void(Axis&)>& apply) {
        change(what, [&](Document& document) {
            for (const std::size_t panel : sheet_.sharing(path_.panel, path_.index)) {
                if (Axis* at = axisAt(document, {ItemKind::Scale, panel, path_.index, 0})) apply(*at);
            }
        });
    };
    auto* label = fields.text(
        tr("label"), [axis] { return QString::fromStdString(axis().label.value_or("")); },
        [set](const QString& text) {
            set(tr("change of a label"),
                [&](Axis& a) { a.label = text.isEmpty() ? std::nullopt : std::optional(text.toStdString()); });
        });
    label->setPlaceholderText(tr("derived from the page"));
    label->setObjectName("axisLabel");
    const auto map = [this] {
        const PanelFigure* panel = sheet_.shownPanel();
        if (!panel) return AxisMap{};
        const Frame& frame = panel->frame();
        if (frame.polar && path_.index == upScale) return frame.polar->radius;
        if (frame.polar && path_.index == acrossScale)
            return AxisMap{ScaleKind::Linear, frame.polar->from, frame.polar->to, 100};
        if (path_.index == uprightScale || frame.space)
            return frame.space ? frame.space->maps[path_.index == uprightScale ? 2 : path_.index] : AxisMap{};
        if (path_.index >= furtherScale) return frame.onScale(path_.index - furtherScale + 1).map.y;
        return path_.index == acrossScale ? frame.map.x : path_.index == upScale ? frame.map.y : frame.colour;
    };
    const auto limits = [map] { return Limits{map().low, map().high}; };
    fields
        .choice(
            tr("scale"), [] { return spokenList(scaleNames); }, [map] { return static_cast<int>(map().kind); },
            [setAll, limits](int index) {
                const auto kind = static_cast<ScaleKind>(index);
                setAll(tr("change of a scale"), [&](Axis& a) {
                    a.scale = kind;
                    if (kind == ScaleKind::Logarithmic && !(limits().low > 0)) a.limits.reset();
                });
            })
        ->setObjectName("axisScale");
    const auto limit = [&](const QString& name, bool low) {
        return fields.text(
            name,
            [limits, low] { return QString::fromStdString(roundedNumber(low ? limits().low : limits().high, 8)); },
            [setAll, axis, map, limits, low](const QString& text) {
                // An empty field is an automatic end; the other one stays what it is.
                const auto value = readNumber(text);
                if (!text.trimmed().isEmpty() && (!value || !std::isfinite(*value))) return;
                if (value && map().kind == ScaleKind::Logarithmic && !(*value > 0)) return;
                if (value && (low ? *value >= limits().high : *value <= limits().low)) return;
                AxisLimits wanted = axis().limits;
                (low ? wanted.low : wanted.high) = value;
                setAll(tr("change of limits"), [&](Axis& a) { a.limits = wanted; });
            });
    };
    for (const bool low : {true, false}) {
        QLineEdit* field = limit(low ? tr("from") : tr("to"), low);
        field->setObjectName(low ? "axisLow" : "axisHigh");
        field->setToolTip(tr("Empty: this end is automatic"));
    }
    auto* automatic = new QToolButton;
    automatic->setText(tr("automatic"));
    fields.row("", automatic, [automatic, axis] { automatic->setEnabled(static_cast<bool>(axis().limits)); });
    connect(automatic, &QToolButton::clicked, this,
            [setAll] { setAll(tr("automatic limits"), [](Axis& a) { a.limits.reset(); }); });
    furtherRow(fields);
    if (path_.index == colourScale) {
        auto* maps = new QToolButton;
        maps->setText(tr("Maps…"));
        maps->setObjectName("chooseMap");
        maps->setToolTip(tr("Every colour map on this very field, in colour, in grey print and to other eyes"));
        fields.row("", maps, {});
        connect(maps, &QToolButton::clicked, this, [this] { emit sheet_.mapsWanted(path_.panel); });
    }
    const bool crosses = path_.index == acrossScale || path_.index == upScale;
    for (const Setting* setting : path_.index == colourScale    ? colourScaleSettings()
                                  : path_.index == uprightScale ? uprightScaleSettings()
                                                                : scaleSettings()) {
        if (!crosses && (setting == &gridSetting || setting == &zeroLineSetting))
            continue; // there is no panel to cross
        const bool merges = setting->type == SettingType::Number;
        fields.setting(
            *setting, [axis] { return axis().settings; },
            [this, setting, merges](std::optional<SettingValue> value) {
                change(
                    tr("change of %1").arg(spoken(setting->label)),
                    [&](Document& document) {
                        if (Axis* at = axisAt(document, path_)) coulter::set(at->settings, *setting, std::move(value));
                    },
                    merges ? setting->key : "");
            },
            [] { return inkColour; }, [] { return std::vector<std::string>(); });
    }
    fields.foldRare(unfolded_);
}

} // namespace coulter
