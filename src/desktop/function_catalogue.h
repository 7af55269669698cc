#pragma once
#include "desktop/look.h"
#include "special/catalogue.h"

#include <QDialog>
#include <QImage>
#include <thread>

class QLabel;
class QLineEdit;
class QListWidget;

namespace coulter {

/// All functions to look through: a list that narrows while one types, and of the chosen one its printed form, domain,
/// derivative, source and a picture, drawn by the same pipeline as every figure.
class FunctionCatalogue : public QDialog {
    Q_OBJECT
public:
    explicit FunctionCatalogue(const LookSettings& look, QWidget* parent = nullptr);

    /// The chosen function's form in the notation.
    QString chosen() const;
    /// Whether the picture of the chosen function is there.
    bool hasPicture() const { return !picture_.isNull(); }

signals:
    void inserted(const QString& form);

private:
    void fill(const QString& wanted);
    void showEntry();
    void draw(const FunctionEntry& entry);

    const LookSettings& look_;
    QLineEdit* search_;
    QListWidget* list_;
    QLabel *form_, *meaning_, *domain_, *derivative_, *source_, *plot_;
    std::vector<const FunctionEntry*> shown_;
    QImage picture_;
    std::jthread drawer_; ///< last, so that it has ended before anything else goes
};

/// The figure that pictures an entry: its example over its interval.
Document pictureOf(const FunctionEntry& entry);

} // namespace coulter
