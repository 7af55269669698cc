#include "desktop/remarks.h"
#include "desktop/translation.h"

namespace coulter {
namespace {

constexpr int goesOn = 1, mends = 2; // what choosing an item does

}

Remarks::Remarks(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent)
    : QListWidget(parent), session_(session), sheet_(sheet), look_(look) {
    setWordWrap(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setAccessibleName(tr("Remarks"));
    setObjectName("remarks");
    connect(&sheet_, &SheetView::figureChanged, this, &Remarks::refresh);
    connect(&look_, &LookSettings::changed, this, [this] {
        clear();
        refresh();
    });
    connect(this, &QListWidget::itemActivated, this, &Remarks::choose);
    connect(this, &QListWidget::itemClicked, this, &Remarks::choose);
}

void Remarks::choose(QListWidgetItem* item) {
    if (item->data(Qt::UserRole).toInt() == goesOn) return sheet_.goOn();
    const auto index = static_cast<std::size_t>(item->data(Qt::UserRole + 1).toInt());
    if (index >= shown_.size()) return;
    const Finding finding = shown_[index]; // what is shown may change on the way
    if (item->data(Qt::UserRole).toInt() == mends) {
        // A remedy is for the document that was looked at, and for no other.
        const ShownFigure* figure = sheet_.figure();
        if (finding.fixed && figure && figure->figure.document == session_.document())
            session_.edit(*finding.fixed, spoken(finding.remedy));
        return;
    }
    if (finding.said.line >= 0) emit lineChosen(finding.said.line, finding.said.first);
    if (finding.where.kind != ItemKind::Sheet) sheet_.select(finding.where);
}

/// Something to be done about the finding above it.
void Remarks::addAction(const QString& text, const QString& tip, int what, int index) {
    auto* item = new QListWidgetItem(text, this);
    item->setToolTip(tip);
    item->setForeground(look_.look().accent());
    QFont underlined = font();
    underlined.setUnderline(true);
    item->setFont(underlined);
    item->setData(Qt::UserRole, what);
    item->setData(Qt::UserRole + 1, index);
}

void Remarks::refresh() {
    const ShownFigure* figure = sheet_.figure();
    std::vector<Finding> found = figure ? findingsOf(figure->figure) : std::vector<Finding>();
    // While a formula is unfinished the figure is an old one, and what it waits for comes first.
    if (!sheet_.waitsFor().isEmpty()) {
        Finding waits;
        waits.said.sentence = sheet_.waitsFor().toStdString();
        found.insert(found.begin(), std::move(waits));
    }
    if (found == shown_ && count() > 0) return; // dragging a number mostly changes nothing here
    shown_ = std::move(found);
    clear();
    for (const Finding& finding : shown_) {
        const QString text = spoken(Problem{-1, 0, 0, finding.said.sentence, finding.said.suggestion});
        auto* item = new QListWidgetItem(text, this);
        item->setForeground(finding.said.severity == Problem::Severity::Error ? look_.look().wrong()
                                                                              : look_.look().ink());
        item->setToolTip(text);
        item->setData(Qt::UserRole + 1, static_cast<int>(&finding - shown_.data()));
        if (finding.canGoOn)
            addAction(tr("Go on, however long it takes"), tr("Compute all of it; Stop ends that at any time"), goesOn,
                      0);
        if (finding.fixed)
            addAction(spoken(finding.remedy), tr("Mends it at once; undo takes it back"), mends,
                      static_cast<int>(&finding - shown_.data()));
    }
    if (count() > 0) return;
    auto* nothing = new QListWidgetItem(tr("Nothing to remark."), this);
    nothing->setForeground(look_.look().muted());
}

} // namespace coulter
