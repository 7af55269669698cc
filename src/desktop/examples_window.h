#pragma once
#include "desktop/examples.h"
#include "desktop/little_pictures.h"
#include "desktop/look.h"

#include <QDialog>

class QLabel;
class QLineEdit;
class QListWidget;

namespace coulter {

/// Every example as a picture, found by a word; a chosen one becomes a document of one's own.
class ExamplesWindow : public QDialog {
    Q_OBJECT
public:
    explicit ExamplesWindow(const LookSettings& look, QWidget* parent = nullptr);

    /// Names of those that are shown, in their order.
    QStringList shown() const;
    /// How many of the pictures are there.
    std::size_t pictures() const { return pictures_; }

signals:
    void chosen(const Example& example);

private:
    void narrow(const QString& wanted);
    void choose(int row);

    std::vector<Example> examples_;
    QLineEdit* search_;
    QListWidget* list_;
    QLabel* sentence_; ///< of the one that is current, or that none is found
    LittlePictures drawer_;
    std::size_t pictures_ = 0;
};

} // namespace coulter
