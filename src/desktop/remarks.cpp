#include "desktop/remarks.h"

namespace coulter {

Remarks::Remarks(SheetView& sheet, const LookSettings& look, QWidget* parent)
    : QListWidget(parent), sheet_(sheet), look_(look) {
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
    if (item->data(Qt::UserRole).toBool()) return sheet_.goOn();
    const auto index = static_cast<std::size_t>(item->data(Qt::UserRole + 1).toInt());
    if (index >= shown_.size()) return;
    const Finding finding = shown_[index]; // what is shown may change on the way
    if (finding.said.line >= 0) emit lineChosen(finding.said.line, finding.said.first);
    if (finding.where.kind != ItemKind::Sheet) sheet_.select(finding.where);
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
        const QString text =
            QString::fromStdString(describe(Problem{-1, 0, 0, finding.said.sentence, finding.said.suggestion}));
        auto* item = new QListWidgetItem(text, this);
        item->setForeground(finding.said.severity == Problem::Severity::Error ? look_.look().wrong()
                                                                              : look_.look().ink());
        item->setToolTip(text);
        item->setData(Qt::UserRole + 1, static_cast<int>(&finding - shown_.data()));
        if (!finding.canGoOn) continue;
        auto* goOn = new QListWidgetItem(tr("Go on, however long it takes"), this);
        goOn->setToolTip(tr("Compute all of it; Stop ends that at any time"));
        goOn->setForeground(look_.look().accent());
        QFont underlined = font();
        underlined.setUnderline(true);
        goOn->setFont(underlined);
        goOn->setData(Qt::UserRole, true);
    }
    if (count() > 0) return;
    auto* nothing = new QListWidgetItem(tr("Nothing to remark."), this);
    nothing->setForeground(look_.look().muted());
}

} // namespace coulter
