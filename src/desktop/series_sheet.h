#pragma once
#include "desktop/look.h"
#include "files/animation.h"
#include "files/figure_series.h"

#include <QDialog>
#include <QStringList>
#include <functional>
#include <thread>

class QCheckBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QSpinBox;

namespace coulter {

class ChoiceField;

/// Several figures at once: one for each value of a quantity, as files or as one animated picture, or those of several
/// recipes. They are made in threads of their own, while the window is used; a stop leaves what is written.
class SeriesSheet : public QDialog {
    Q_OBJECT
public:
    /// Reads a recipe, or says what is wrong and returns none.
    using Reader = std::function<std::optional<Document>(const QString& path)>;
    /// @param figure  as it is shown, for the quantities that can change
    /// @param name    what files are called after
    /// @param folder  where they go unless another is chosen
    SeriesSheet(const LookSettings& look, Document document, const Figure& figure, const QString& name,
                const QString& folder, Reader read, QWidget* parent = nullptr);

    /// The recipes whose figures are made; as chosen in a dialog.
    void takeRecipes(const QStringList& paths);

private:
    struct Kind {         ///< what can change
        std::string name; ///< of the quantity or setting; empty: recipes
        QString values;   ///< usual ones
    };
    void offer(const Figure& figure);
    void start();
    void finish(const QString& words);
    /// What is to be made, or why that cannot be.
    QString gather(std::vector<SeriesFigure>& figures, Animation& animation) const;
    void sayPlan();
    void showFields();
    void setRow(QWidget* field, bool shown);
    bool isAnimation() const;
    bool ofRecipes() const;

    Document document_;
    QString name_;
    Reader read_;
    std::vector<Kind> kinds_;
    std::vector<std::pair<QString, Document>> recipes_; ///< by the name of their file
    QFormLayout* form_;
    ChoiceField *of_, *as_;
    QLineEdit *values_, *folder_;
    QPushButton *choose_, *start_;
    QSpinBox *count_, *seconds_;
    QCheckBox *logarithmic_, *toAndFro_;
    QLabel* summary_;
    QProgressBar* progress_;
    bool working_ = false;
    std::jthread worker_; ///< last, so that it has ended before anything else goes
};

} // namespace coulter
