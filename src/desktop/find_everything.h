#pragma once
#include "desktop/look.h"

#include <QDialog>
#include <functional>
#include <vector>

class QLabel;
class QLineEdit;
class QListWidget;

namespace coulter {

/// Something that can be found by typing.
struct Findable {
    enum class Sort : std::uint8_t { Command, Setting, Function, Manual };
    Sort sort = Sort::Command;
    QString text; ///< "Export", "Legend › place", "P_{n}(x)"
    QString more; ///< what it does, by which it is found too
    QString keys; ///< that do the same; empty: none
    std::function<void()> run;
};

/// Those that have all the words, in any order: those first whose text begins with them, then those that have words
/// beginning with them; equal ones as they came. Places in `all`.
std::vector<std::size_t> findAmong(const std::vector<Findable>& all, const QString& words);

/// One field for everything: commands, settings of what is selected, functions, pages of the manual.
class FindEverything : public QDialog {
    Q_OBJECT
public:
    FindEverything(std::vector<Findable> all, const LookSettings& look, QWidget* parent = nullptr);

    QStringList shown() const;

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    void narrow();
    void run();

    std::vector<Findable> all_;
    std::vector<std::size_t> found_;
    QLineEdit* field_;
    QListWidget* list_;
    QLabel* foot_;
};

} // namespace coulter
