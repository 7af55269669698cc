#pragma once
#include "desktop/look.h"
#include "desktop/manual_place.h"

#include <QDialog>
#include <QTextBrowser>

class QLineEdit;
class QListWidget;

namespace coulter {

/// The manual, which is part of the program. Examples of lines are links: a click puts them on the page.
class ManualWindow : public QDialog {
    Q_OBJECT
public:
    explicit ManualWindow(const LookSettings& look, QWidget* parent = nullptr);

    /// Shows a page, from the heading or the row of a table on that has the words.
    void show(const ManualPlace& place);
    /// What is shown, for those who ask.
    ManualPlace place() const { return place_; }

    /// All headings of all pages, in their order; the title of a page.
    static std::vector<ManualPlace> headings();
    static QString titleOf(const QString& page);

signals:
    /// An example was chosen: a line of a page.
    void lineWanted(const QString& line);

private:
    void follow(const QUrl& link);
    void find(bool again);
    void scrollTo(const QString& words);

    class Browser : public QTextBrowser {
    public:
        using QTextBrowser::QTextBrowser;
        QVariant loadResource(int type, const QUrl& name) override;
    };
    const LookSettings& look_;
    QListWidget* pages_;
    QLineEdit* search_;
    Browser* text_;
    ManualPlace place_;
};

} // namespace coulter
