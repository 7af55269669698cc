#include "desktop/form_fields.h"

#include "desktop/choice_field.h"
#include "desktop/translation.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QColorDialog>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLineEdit>
#include <QPainter>
#include <QPixmap>
#include <QToolButton>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

QIcon swatch(const QColor& colour, int size) {
    QPixmap pixmap(size * 2, size);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.fillRect(QRect(0, size / 3, size * 2, size / 3), colour);
    return pixmap;
}

} // namespace

FormFields::FormFields(QFormLayout& form, const LookSettings& look, QObject* parent)
    : QObject(parent), form_(form), look_(look) {
    form_.setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    // With large letters a field goes below its name.
    form_.setRowWrapPolicy(look.look().scale > 1.15 ? QFormLayout::WrapAllRows : QFormLayout::DontWrapRows);
    form_.setLabelAlignment(Qt::AlignLeft);
    form_.setVerticalSpacing(look.look().px(7));
}

void FormFields::refresh() {
    if (refreshing_) return;
    refreshing_ = true;
    for (const auto& refresher : refreshers_) refresher();
    refreshing_ = false;
}

void FormFields::row(const QString& name, QWidget* widget, const std::function<void()>& refresher) {
    form_.addRow(name, widget);
    if (refresher) refreshers_.push_back(refresher);
}

void FormFields::showWhile(const Setting& setting, const std::function<bool()>& wanted) {
    auto* field = form_.parentWidget()->findChild<QWidget*>(QString("setting-") + setting.key);
    if (field) refreshers_.push_back([this, field, wanted] { form_.setRowVisible(field, wanted()); });
}

void FormFields::foldRare(bool& unfolded) {
    if (rare_.empty()) return;
    auto* button = new QToolButton;
    button->setObjectName("unfold");
    button->setCheckable(true);
    button->setChecked(unfolded);
    const auto show = [this, button, &unfolded] {
        button->setText(unfolded ? tr("fewer") : tr("more"));
        button->setAccessibleName(unfolded ? tr("fewer settings") : tr("more settings"));
        for (const Rare& each : rare_) form_.setRowVisible(each.field, unfolded || each.isSet());
    };
    row("", button, show);
    connect(button, &QToolButton::toggled, this, [show, &unfolded](bool on) {
        unfolded = on;
        show();
    });
}

QLineEdit* FormFields::text(const QString& name, const std::function<QString()>& read,
                            const std::function<void(const QString&)>& write) {
    auto* field = new QLineEdit;
    field->setAccessibleName(name);
    field->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed); // as wide as there is room
    field->setMinimumWidth(look_.look().px(40));
    row(name, field, [field, read] {
        if (field->hasFocus() && field->isModified()) return;
        if (const QString now = read(); field->text() != now) field->setText(now);
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

QDoubleSpinBox* FormFields::number(const QString& name, double least, double greatest, double step, const QString& unit,
                                   const std::function<double()>& read, const std::function<void(double)>& write) {
    auto* field = new QDoubleSpinBox;
    field->setLocale(QLocale::c());
    field->setRange(least, greatest);
    field->setDecimals(step >= 1 ? 0 : static_cast<int>(std::ceil(-std::log10(step) - 1e-9)));
    field->setSingleStep(step);
    field->setSuffix(unit.isEmpty() ? "" : " " + unit);
    field->setAccessibleName(name);
    field->setKeyboardTracking(false);
    field->setButtonSymbols(QAbstractSpinBox::NoButtons);
    field->setMinimumWidth(look_.look().px(40));
    row(name, field, [field, read] { field->setValue(read()); });
    connect(field, &QDoubleSpinBox::valueChanged, this, [this, write](double value) {
        if (!refreshing_) write(value);
    });
    return field;
}

QComboBox* FormFields::choice(const QString& name, const std::function<QStringList()>& choices,
                              const std::function<int()>& read, const std::function<void(int)>& write) {
    auto* field = new ChoiceField;
    field->setAccessibleName(name);
    field->setMinimumWidth(look_.look().px(40));
    field->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    row(name, field, [field, choices, read] {
        const QStringList list = choices();
        QStringList held;
        for (int i = 0; i < field->count(); ++i) held << field->itemText(i);
        if (held != list) {
            field->clear();
            field->addItems(list);
        }
        field->setCurrentIndex(read());
    });
    connect(field, &QComboBox::activated, this, [write](int index) { write(index); });
    return field;
}

QCheckBox* FormFields::check(const QString& name, const QString& meaning, const std::function<bool()>& read,
                             const std::function<void(bool)>& write) {
    auto* box = new QCheckBox(meaning);
    box->setAccessibleName(name);
    row(name, box, [box, read] { box->setChecked(read()); });
    connect(box, &QCheckBox::clicked, this, write);
    return box;
}

void FormFields::colour(const Setting& setting, const std::function<Settings()>& read,
                        const std::function<void(std::optional<SettingValue>)>& write,
                        const std::function<Colour()>& shown) {
    auto* whole = new QWidget;
    const bool large = look_.look().scale > 1.15; // then one below the other
    auto* both = new QBoxLayout(large ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight, whole);
    both->setContentsMargins(0, 0, 0, 0);
    auto* button = new QToolButton;
    const QString name = spoken(setting.label);
    button->setObjectName(QString("setting-") + setting.key);
    button->setAccessibleName(name);
    button->setIconSize({look_.look().px(32), look_.look().px(16)});
    auto* automatic = new QToolButton;
    automatic->setText(tr("automatic"));
    automatic->setObjectName(QString("automatic-") + setting.key);
    both->addWidget(button);
    both->addWidget(automatic);
    both->addStretch(1);
    const int size = look_.look().px(16);
    row(name, whole, [button, automatic, read, shown, size, key = setting.key] {
        button->setIcon(swatch(toQColor(shown()), size));
        automatic->setEnabled(read().contains(key));
    });
    connect(button, &QToolButton::clicked, this, [button, write, shown] {
        const QColor chosen = QColorDialog::getColor(toQColor(shown()), button, tr("Colour"));
        if (chosen.isValid()) write(toColour(chosen));
    });
    connect(automatic, &QToolButton::clicked, this, [write] { write(std::nullopt); });
    if (setting.rare) rare_.push_back({whole, [read, key = setting.key] { return read().contains(key); }});
}

void FormFields::setting(const Setting& setting, const std::function<Settings()>& read,
                         const std::function<void(std::optional<SettingValue>)>& write,
                         const std::function<Colour()>& shown,
                         const std::function<std::vector<std::string>()>& variables) {
    const QString name = spoken(setting.label), object = QString("setting-") + setting.key;
    QWidget* field = nullptr;
    switch (setting.type) {
    case SettingType::Truth:
        field = check(
            name, tr("yes"), [read, &setting] { return truth(read(), setting); }, [write](bool on) { write(on); });
        break;
    case SettingType::Number:
        field = number(
            name, setting.least, setting.greatest, setting.step, QString::fromUtf8(setting.unit),
            [read, &setting] { return coulter::number(read(), setting); }, [write](double value) { write(value); });
        break;
    case SettingType::Word:
        field = choice(
            name, [&setting] { return spokenList(setting.words); },
            [read, &setting] { return static_cast<int>(word(read(), setting)); },
            [write, &setting](int index) { write(std::string(setting.words[static_cast<std::size_t>(index)])); });
        break;
    case SettingType::Text:
    case SettingType::Formula:
        field = text(
            name, [read, &setting] { return QString::fromStdString(coulter::text(read(), setting)); },
            [write](const QString& typed) { write(typed.toStdString()); });
        break;
    case SettingType::Variable:
        field = choice(
            name,
            [variables] {
                std::vector<std::string> sorted = variables(); // in an order that choosing does not change
                std::ranges::sort(sorted);
                return listed(sorted);
            },
            [variables] {
                const std::vector<std::string> all = variables();
                return all.size() > 1 && all[1] < all[0] ? 1 : 0;
            },
            [write, variables](int index) {
                std::vector<std::string> sorted = variables();
                std::ranges::sort(sorted);
                if (static_cast<std::size_t>(index) < sorted.size()) write(sorted[static_cast<std::size_t>(index)]);
            });
        break;
    case SettingType::Colour: return colour(setting, read, write, shown);
    }
    if (setting.rare) rare_.push_back({field, [read, key = setting.key] { return read().contains(key); }});
    field->setObjectName(object);
    field->setToolTip(spoken(setting.meaning));
}

} // namespace coulter
