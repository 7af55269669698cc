#pragma once
#include "desktop/look.h"
#include "figure/settings.h"

#include <QObject>
#include <QStringList>
#include <functional>
#include <vector>

class QCheckBox;
class QComboBox;
class QDoubleSpinBox;
class QFormLayout;
class QLineEdit;

namespace coulter {

/// The fields of a form, each with what it reads and what it writes. `refresh` brings all of them up to date without
/// writing anything.
class FormFields : public QObject {
    Q_OBJECT
public:
    FormFields(QFormLayout& form, const LookSettings& look, QObject* parent);

    QLineEdit* text(const QString& name, const std::function<QString()>& read,
                    const std::function<void(const QString&)>& write);
    QDoubleSpinBox* number(const QString& name, double least, double greatest, double step, const QString& unit,
                           const std::function<double()>& read, const std::function<void(double)>& write);
    QComboBox* choice(const QString& name, const std::function<QStringList()>& choices,
                      const std::function<int()>& read, const std::function<void(int)>& write);
    QCheckBox* check(const QString& name, const QString& meaning, const std::function<bool()>& read,
                     const std::function<void(bool)>& write);
    /// The field that a setting's type asks for; its object name is "setting-" and the key.
    /// @param shown      the colour when none is set
    /// @param variables  what a variable is chosen from, the one in use first
    void setting(const Setting& setting, const std::function<Settings()>& read,
                 const std::function<void(std::optional<SettingValue>)>& write, const std::function<Colour()>& shown,
                 const std::function<std::vector<std::string>()>& variables);
    /// Shows the field of a setting only while something is so.
    void showWhile(const Setting& setting, const std::function<bool()>& wanted);
    /// Hides the settings added so far that are rarely wanted, unless they are set, behind a button.
    /// @param unfolded  whether they are shown; kept up to date
    void foldRare(bool& unfolded);
    /// Something else in the form, kept up to date by `refresher`.
    void row(const QString& name, QWidget* widget, const std::function<void()>& refresher);

    void refresh();

private:
    void colour(const Setting& setting, const std::function<Settings()>& read,
                const std::function<void(std::optional<SettingValue>)>& write, const std::function<Colour()>& shown);

    QFormLayout& form_;
    const LookSettings& look_;
    std::vector<std::function<void()>> refreshers_;
    struct Rare {
        QWidget* field;
        std::function<bool()> isSet;
    };
    std::vector<Rare> rare_;
    bool refreshing_ = false;
};

/// Names as a list for a choice.
template <typename Names> QStringList listed(const Names& names) {
    QStringList list;
    for (const auto& name : names) list << QString::fromUtf8(std::string(name));
    return list;
}

} // namespace coulter
