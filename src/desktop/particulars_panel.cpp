// Particulars of the sheet, of its panels and of what they share. See particulars.h.
#include "desktop/particulars.h"
#include "desktop/translation.h"

#include "drawing/colours.h"
#include "figure/scale_settings.h"
#include "figure/sheet_looks.h"
#include "figure/sheet_settings.h"
#include "figure/sheet_sizes.h"
#include "notes/document_look.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <algorithm>

namespace coulter {

void Particulars::legendField(FormFields& fields, const QString& name) {
    fields
        .choice(
            name, [] { return spokenList(legendPlaceNames); },
            [this] {
                const coulter::Panel* panel = panelAt(session_.shown(), path_);
                return panel ? static_cast<int>(panel->legend.place) : 0;
            },
            [this](int index) {
                change(tr("change of the legend"), [&](Document& document) {
                    Legend& legend = document.panels[path_.panel].legend;
                    legend.place = static_cast<LegendPlace>(index);
                    legend.at.reset();
                });
            })
        ->setObjectName("legendPlace");
    auto* columns = fields.number(
        tr("in columns"), 0, mostLegendColumns, 1, "",
        [this] {
            const coulter::Panel* panel = panelAt(session_.shown(), path_);
            return panel ? static_cast<double>(panel->legend.columns) : 0.0;
        },
        [this](double count) {
            change(
                tr("change of the legend's columns"),
                [&](Document& document) { document.panels[path_.panel].legend.columns = static_cast<int>(count); },
                "columns");
        });
    columns->setSpecialValueText(tr("automatic"));
    columns->setObjectName("legendColumns");
}

void Particulars::sheetFields(FormFields& fields) {
    const auto sheetNumber = [&](const QString& name, double least, double greatest, double step, const QString& unit,
                                 double Sheet::*which, const QString& what) {
        return fields.number(
            name, least, greatest, step, unit, [this, which] { return session_.shown().sheet.*which; },
            [this, which, what](double v) {
                change(
                    what, [&](Document& document) { document.sheet.*which = v; }, what);
            });
    };
    fields
        .choice(
            tr("size"),
            [] {
                QStringList names;
                for (const SheetSize& size : sheetSizes()) names << spoken(size.name);
                return names << tr("its own");
            },
            [this] { return static_cast<int>(sizeOf(session_.shown().sheet)); },
            [this](int which) {
                if (which < 0 || which >= static_cast<int>(sheetSizes().size())) return;
                change(tr("change of the sheet's size"), [&](Document& document) {
                    setSize(document.sheet, sheetSizes()[static_cast<std::size_t>(which)].name);
                });
            })
        ->setObjectName("sheetSize");
    fields
        .choice(
            tr("look"),
            [] {
                QStringList names;
                for (const SheetLook& look : sheetLooks()) names << spoken(look.name);
                return names << tr("its own");
            },
            [this] { return static_cast<int>(whichLook(session_.shown().sheet)); },
            [this](int which) {
                if (which < 0 || which >= static_cast<int>(sheetLooks().size())) return;
                change(tr("change of the look"),
                       [&](Document& document) { setLook(document, sheetLooks()[static_cast<std::size_t>(which)]); });
            })
        ->setObjectName("sheetLook");
    sheetNumber(tr("width"), leastSheet, greatestSheet, 0.1, "mm", &Sheet::width, tr("change of the sheet's width"))
        ->setObjectName("sheetWidth");
    sheetNumber(tr("height"), leastSheet, greatestSheet, 0.1, "mm", &Sheet::height, tr("change of the sheet's height"))
        ->setObjectName("sheetHeight");
    sheetNumber(tr("letters"), leastLetters, greatestLetters, 0.5, "pt", &Sheet::textSize,
                tr("change of the letters' size"));
    sheetNumber(tr("tolerance"), 0.001, 10, 0.005, "mm", &Sheet::tolerance, tr("change of the tolerance"));
    sheetNumber(tr("bitmap"), leastResolution, greatestResolution, 1, tr("dots/inch"), &Sheet::resolution,
                tr("change of the resolution"));
    // The only panel is part of the sheet.
    const bool several = session_.shown().panels.size() > 1;
    if (!several) panelFields(fields);
    for (const Setting* setting : sheetSettings()) {
        const bool ofFiles = setting == &paperSetting || setting == &extentSetting || setting == &marginSetting ||
                             setting == &surfacesSetting;
        const bool ofLook = std::ranges::find(sheetLookSettings(), setting) != sheetLookSettings().end();
        if (!several && !ofFiles && !ofLook) continue;
        fields.setting(
            *setting, [this] { return session_.shown().sheet.settings; },
            [this, setting](std::optional<SettingValue> value) {
                change(
                    tr("change of %1").arg(spoken(setting->label)),
                    [&](Document& document) { coulter::set(document.sheet.settings, *setting, std::move(value)); },
                    setting->type == SettingType::Number ? setting->key : "");
            },
            [this, setting] {
                return coulter::colour(session_.shown().sheet.settings, *setting)
                    .value_or(setting == &paperColourSetting ? paperColour : inkColour);
            },
            [] { return std::vector<std::string>(); });
    }
    fields.foldRare(unfolded_);
}

void Particulars::panelFields(FormFields& fields) {
    const auto panel = [this] {
        const coulter::Panel* at = panelAt(session_.shown(), path_);
        return at ? *at : coulter::Panel{};
    };
    fields
        .text(
            tr("title"), [panel] { return QString::fromStdString(panel().title); },
            [this](const QString& text) {
                change(tr("change of the title"),
                       [&](Document& document) { document.panels[path_.panel].title = text.toStdString(); });
            })
        ->setObjectName("sheetTitle");
    legendField(fields, tr("legend"));
    fields
        .check(
            tr("scales"), tr("equal both ways"), [panel] { return panel().equalScales.value_or(false); },
            [this](bool on) {
                change(tr("equal scales"), [&](Document& document) { document.panels[path_.panel].equalScales = on; });
            })
        ->setObjectName("equalScales");
    auto* panels = new QToolButton;
    panels->setText(tr("Panel…"));
    panels->setObjectName("panelMenuButton");
    panels->setToolTip(tr("Add, split, copy, move or remove a panel"));
    panels->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(panels);
    panels->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] {
        menu->clear();
        sheet_.fillPanelMenu(*menu, path_.panel);
    });
    fields.row(tr("panels"), panels, {});
    const PanelFigure* figure = sheet_.shownPanel();
    for (const Setting* setting : figure && figure->frame().polar ? angleSettings() : std::span<const Setting* const>())
        fields.setting(
            *setting, [panel] { return panel().angle; },
            [this, setting](std::optional<SettingValue> value) {
                change(tr("change of %1").arg(spoken(setting->label)), [&](Document& document) {
                    coulter::set(document.panels[path_.panel].angle, *setting, std::move(value));
                });
            },
            [] { return inkColour; }, [] { return std::vector<std::string>(); });
    // What the panel draws, each a way to its own particulars.
    const coulter::Panel* shown = panelAt(session_.shown(), path_);
    for (std::size_t i = 0; shown && i < shown->plots.size(); ++i) {
        auto* button = new QToolButton;
        const QString text = spoken(shown->plots[i].kind) + ": " + QString::fromStdString(shown->plots[i].of);
        button->setText(button->fontMetrics().elidedText(text, Qt::ElideRight, look_.look().px(130)));
        button->setObjectName(QString("plot-%1").arg(i));
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        button->setToolTip(text);
        fields.row(i == 0 ? tr("plots") : QString(), button, {});
        connect(button, &QToolButton::clicked, this, [this, i, panel = path_.panel] {
            sheet_.select({ItemKind::Plot, panel, i, 0});
        });
    }
    if (!showsSpace()) return;
    const auto viewField = [&](const QString& name, double View::*which, double least, double most, double step,
                               const QString& unit) {
        return fields.number(
            name, least, most, step, unit, [panel, which] { return panel().view.*which; },
            [this, which](double v) {
                // No eye is within the box: from none it comes to where it can be.
                if (which == &View::distance && v > 0 && v < leastDistance)
                    v = panelAt(session_.shown(), path_)->view.distance > 0 ? 0 : leastDistance;
                change(
                    tr("turn of the view"), [&](Document& document) { document.panels[path_.panel].view.*which = v; },
                    "view");
            });
    };
    static constexpr View named[] = {{}, {0, 90}, {0, 0}, {90, 0}};
    fields
        .choice(
            tr("view"),
            [] {
                return QStringList{tr("usual"), tr("from above"), tr("from the front"), tr("from the side"),
                                   tr("free")};
            },
            [panel] {
                const View view = panel().view;
                const auto at = std::ranges::find_if(named, [&](const View& each) {
                    return each.azimuth == view.azimuth && each.elevation == view.elevation;
                });
                return static_cast<int>(at - std::begin(named));
            },
            [this](int index) {
                if (index < 0 || index >= static_cast<int>(std::size(named))) return;
                change(tr("turn of the view"), [&](Document& document) {
                    View& view = document.panels[path_.panel].view;
                    view.azimuth = named[index].azimuth;
                    view.elevation = named[index].elevation;
                });
            })
        ->setObjectName("viewName");
    viewField(tr("seen from"), &View::azimuth, -360, 360, 1, "°")->setObjectName("viewAzimuth");
    viewField(tr("height"), &View::elevation, -90, 90, 1, "°")->setObjectName("viewElevation");
    viewField(tr("distance"), &View::distance, 0, greatestDistance, 0.1, tr("diagonals"))
        ->setObjectName("viewDistance");
    viewField(tr("stretched"), &View::height, leastHeight, greatestHeight, 0.1, tr("times"))
        ->setObjectName("viewHeight");
}

/// The vertical scale that a plot lies on; the last choice makes a new one.
void Particulars::scaleField(FormFields& fields) {
    const PanelFigure* figure = sheet_.shownPanel();
    if (memberAlone_ || !figure || !figure->frame().isPlane()) return;
    fields
        .choice(
            tr("scale"),
            [this] {
                QStringList names{tr("left")};
                for (std::size_t k = 1; k <= furtherCount(); ++k) names << tr("right %1").arg(k);
                if (furtherCount() < static_cast<std::size_t>(mostFurtherScales)) names << tr("a new one");
                return names;
            },
            [this] { return static_cast<int>(std::min(plotShown().scale, furtherCount())); },
            [this](int index) {
                change(tr("another scale"), [&](Document& document) {
                    Plot* plot = plotAt(document, path_);
                    if (!plot || index < 0) return;
                    std::vector<Axis>& further = document.panels[path_.panel].further;
                    plot->scale = static_cast<std::size_t>(index);
                    if (plot->scale > further.size()) further.emplace_back();
                });
            })
        ->setObjectName("plotScale");
}

/// Another unit of the first vertical scale at the right, or one scale less.
void Particulars::furtherRow(FormFields& fields) {
    const PanelFigure* figure = sheet_.shownPanel();
    if (!figure || !figure->frame().isPlane()) return;
    auto* button = new QToolButton;
    if (path_.index == upScale && furtherCount() < static_cast<std::size_t>(mostFurtherScales)) {
        button->setText(tr("repeat at the right"));
        button->setObjectName("repeatScale");
        button->setToolTip(tr("The same scale once more, which may be shown in another unit"));
        connect(button, &QToolButton::clicked, this, [this] {
            change(tr("new scale"), [&](Document& document) { document.panels[path_.panel].further.emplace_back(); });
        });
    } else if (path_.index >= furtherScale) {
        button->setText(tr("remove"));
        button->setObjectName("removeScale");
        button->setToolTip(tr("What lies on it goes to the left scale"));
        connect(button, &QToolButton::clicked, this, [this] {
            const std::size_t number = path_.index - furtherScale + 1;
            change(tr("removal of a scale"), [&](Document& document) {
                coulter::Panel& panel = document.panels[path_.panel];
                if (number > panel.further.size()) return;
                panel.further.erase(panel.further.begin() + static_cast<std::ptrdiff_t>(number) - 1);
                for (Plot& plot : panel.plots) {
                    if (plot.scale == number) plot.scale = 0;
                    if (plot.scale > number) --plot.scale;
                }
            });
            sheet_.select({});
        });
    } else {
        delete button;
        return;
    }
    fields.row("", button, {});
}

void Particulars::noteFields(FormFields& fields) {
    const auto shown = [this] {
        const Note* note = noteAt(session_.shown(), path_);
        return note ? *note : Note{};
    };
    const auto changeNote = [this](const QString& what, const std::function<void(Note&)>& apply,
                                   const QString& mergeKey = {}) {
        change(
            what,
            [&](Document& document) {
                if (Note* note = noteAt(document, path_)) apply(*note);
            },
            mergeKey);
    };
    const NoteKind* kind = findNoteKind(shown().kind);
    if (!kind) return;
    QLineEdit* words = fields.text(
        tr("words"), [shown] { return QString::fromStdString(shown().words); },
        [changeNote](const QString& text) {
            changeNote(tr("change of a note"), [&](Note& note) { note.words = text.toStdString(); });
        });
    words->setObjectName("noteWords");
    words->setToolTip(tr("Formulas stand between $, values of the page in braces"));
    // Its places, as far as a form can show them.
    for (std::size_t i = 0; i < std::min<std::size_t>(4, shown().at.size()); ++i) {
        for (std::size_t k = 0; k < shown().at[i].size(); ++k) {
            static constexpr const char* names[] = {"x", "y", "z"};
            QString name = QString::fromUtf8(names[k]);
            if (kind->mostPlaces > 1) name += QString(" %1").arg(i + 1);
            QLineEdit* field = fields.text(
                name,
                [shown, i, k] {
                    const Note note = shown();
                    return i < note.at.size() && k < note.at[i].size() ? QString::fromStdString(note.at[i][k])
                                                                       : QString();
                },
                [changeNote, i, k](const QString& text) {
                    if (text.trimmed().isEmpty()) return;
                    changeNote(tr("move of a note"), [&](Note& note) {
                        if (i < note.at.size() && k < note.at[i].size()) note.at[i][k] = text.trimmed().toStdString();
                    });
                });
            field->setObjectName(QString("notePlace-%1-%2").arg(i).arg(k));
            field->setToolTip(tr("A number, or a formula of the page such as f(2)"));
        }
    }
    for (const Setting* setting : kind->settings) {
        fields.setting(
            *setting, [shown] { return shown().settings; },
            [this, changeNote, setting](std::optional<SettingValue> value) {
                changeNote(
                    tr("change of %1").arg(spoken(setting->label)),
                    [&](Note& note) { coulter::set(note.settings, *setting, std::move(value)); },
                    setting->type == SettingType::Number ? setting->key : "");
            },
            [] { return inkColour; }, [] { return std::vector<std::string>(); });
    }
    fields.foldRare(unfolded_);
    auto* copy = new QToolButton;
    copy->setText(tr("copy"));
    copy->setObjectName("noteCopy");
    fields.row("", copy, {});
    connect(copy, &QToolButton::clicked, this, [this] { sheet_.copyNote(path_); });
    auto* remove = new QToolButton;
    remove->setText(tr("remove"));
    remove->setObjectName("noteRemove");
    fields.row("", remove, {});
    connect(remove, &QToolButton::clicked, this, [this] { sheet_.removeNote(path_); });
}

} // namespace coulter
