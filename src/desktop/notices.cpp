#include "desktop/notices.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>

namespace coulter {

Notices::Notices(LookSettings& look, QWidget* parent) : QWidget(parent), rows_(new QVBoxLayout(this)) {
    setObjectName("notices");
    setAttribute(Qt::WA_StyledBackground);
    rows_->setContentsMargins(look.look().px(10), 0, look.look().px(4), 0);
    rows_->setSpacing(0);
    hide();
}

void Notices::show(const QString& key, const QString& text, std::vector<NoticeAction> actions) {
    remove(key);
    auto* row = new QWidget;
    row->setObjectName(key);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 3, 0, 3);
    auto* label = new QLabel(text);
    label->setObjectName("noticeText");
    label->setWordWrap(true);
    label->setTextFormat(Qt::PlainText); // a file's name is no markup
    line->addWidget(label, 1);
    for (NoticeAction& action : actions) {
        auto* button = new QPushButton(action.text);
        connect(button, &QPushButton::clicked, this, [this, key, run = std::move(action.run)] {
            const auto wanted = run; // the button goes with its notice
            remove(key);
            wanted();
        });
        line->addWidget(button);
    }
    auto* close = new QToolButton;
    close->setText("×");
    close->setToolTip(tr("Take this notice away"));
    close->setAccessibleName(close->toolTip());
    connect(close, &QToolButton::clicked, this, [this, key] { remove(key); });
    line->addWidget(close);
    rows_->addWidget(row);
    setVisible(true);
}

void Notices::remove(const QString& key) {
    for (auto* row : findChildren<QWidget*>(key, Qt::FindDirectChildrenOnly)) {
        row->setObjectName(QString());
        rows_->removeWidget(row);
        row->hide();
        row->deleteLater();
    }
    setVisible(rows_->count() > 0);
}

void Notices::removeAll(const QString& beginning) {
    for (auto* row : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
        if (row->objectName().startsWith(beginning)) remove(row->objectName());
    }
}

QStringList Notices::texts() const {
    QStringList all;
    for (int i = 0; i < rows_->count(); ++i)
        all << rows_->itemAt(i)->widget()->findChild<QLabel*>("noticeText")->text();
    return all;
}

} // namespace coulter
