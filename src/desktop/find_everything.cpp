#include "desktop/find_everything.h"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QVBoxLayout>
#include <algorithm>

namespace coulter {
namespace {

constexpr std::size_t mostFound = 60;
constexpr int keysRole = Qt::UserRole + 1, sortRole = Qt::UserRole + 2;

QString wordFor(Findable::Sort sort) {
    switch (sort) {
    case Findable::Sort::Command: return QObject::tr("command");
    case Findable::Sort::Setting: return QObject::tr("setting");
    case Findable::Sort::Function: return QObject::tr("function");
    case Findable::Sort::Manual: return QObject::tr("manual");
    }
    return {};
}

/// The text at the left, what it is and its keys at the right.
class FindableDelegate : public QStyledItemDelegate {
public:
    FindableDelegate(const LookSettings& look, QObject* parent) : QStyledItemDelegate(parent), look_(look) {}

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        return {100, look_.look().px(26)};
    }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Look& look = look_.look();
        const bool chosen = option.state & QStyle::State_Selected;
        painter->fillRect(option.rect, chosen ? look.faintAccent() : look.page());
        if (chosen)
            painter->fillRect(QRect(option.rect.topLeft(), QSize(look.px(3), option.rect.height())), look.accent());
        const QRect inside = option.rect.adjusted(look.px(12), 0, -look.px(10), 0);
        const QString keys = index.data(keysRole).toString(), sort = index.data(sortRole).toString();
        const int keysWidth = look.px(120), sortWidth = look.px(80);
        painter->setPen(look.muted());
        painter->drawText(inside, Qt::AlignVCenter | Qt::AlignRight, keys);
        painter->drawText(inside.adjusted(0, 0, -keysWidth, 0), Qt::AlignVCenter | Qt::AlignRight, sort);
        painter->setPen(look.ink());
        const QRect room = inside.adjusted(0, 0, -keysWidth - sortWidth, 0);
        painter->drawText(
            room, Qt::AlignVCenter | Qt::AlignLeft,
            option.fontMetrics.elidedText(index.data(Qt::DisplayRole).toString(), Qt::ElideRight, room.width()));
    }

private:
    const LookSettings& look_;
};

/// 0: the text begins with the words; 1: each begins a word of it; 2: it has them; 3: what it does has them; −1: not
/// all.
int rankOf(const Findable& each, const QString& words, const QStringList& parts) {
    const QString text = each.text.toLower(), all = text + ' ' + each.more.toLower();
    if (!std::ranges::all_of(parts, [&](const QString& part) { return all.contains(part); })) return -1;
    if (text.startsWith(words)) return 0;
    const auto beginsWord = [&](const QString& part) {
        for (qsizetype at = text.indexOf(part); at >= 0; at = text.indexOf(part, at + 1)) {
            if (at == 0 || !text[at - 1].isLetterOrNumber()) return true;
        }
        return false;
    };
    if (std::ranges::all_of(parts, beginsWord)) return 1;
    return std::ranges::all_of(parts, [&](const QString& part) { return text.contains(part); }) ? 2 : 3;
}

} // namespace

std::vector<std::size_t> findAmong(const std::vector<Findable>& all, const QString& words) {
    const QString wanted = words.toLower().trimmed();
    const QStringList parts = wanted.split(' ', Qt::SkipEmptyParts);
    std::vector<std::pair<int, std::size_t>> ranked;
    for (std::size_t i = 0; i < all.size(); ++i) {
        // Without a word only commands and settings: everything else is too much to be looked through.
        if (parts.isEmpty() && all[i].sort > Findable::Sort::Setting) continue;
        const int rank = parts.isEmpty() ? 0 : rankOf(all[i], wanted, parts);
        // What is done comes before what is read.
        if (rank >= 0) ranked.emplace_back(rank + (all[i].sort == Findable::Sort::Manual ? 1 : 0), i);
    }
    std::ranges::stable_sort(ranked, {}, &std::pair<int, std::size_t>::first);
    std::vector<std::size_t> found;
    for (const auto& [rank, i] : ranked) found.push_back(i);
    return found;
}

FindEverything::FindEverything(std::vector<Findable> all, const LookSettings& look, QWidget* parent)
    : QDialog(parent), all_(std::move(all)), field_(new QLineEdit), list_(new QListWidget), foot_(new QLabel) {
    setWindowTitle(tr("Find"));
    setObjectName("findEverything");
    field_->setPlaceholderText(tr("a command, a setting of what is selected, a function, a word of the manual"));
    field_->setAccessibleName(tr("Words to find by"));
    field_->setObjectName("findField");
    field_->installEventFilter(this);
    list_->setObjectName("findList");
    list_->setAccessibleName(tr("What was found"));
    list_->setItemDelegate(new FindableDelegate(look, list_));
    list_->setFocusPolicy(Qt::NoFocus);
    list_->setUniformItemSizes(true);
    foot_->setObjectName("findFoot");
    foot_->setWordWrap(true);
    foot_->setStyleSheet("color:" + look.look().muted().name());
    auto* column = new QVBoxLayout(this);
    column->addWidget(field_);
    column->addWidget(list_, 1);
    column->addWidget(foot_);
    resize(look.look().px(620), look.look().px(420));
    connect(field_, &QLineEdit::textChanged, this, &FindEverything::narrow);
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
        const bool known = row >= 0 && row < static_cast<int>(found_.size());
        foot_->setText(known ? all_[found_[static_cast<std::size_t>(row)]].more : QString());
    });
    connect(list_, &QListWidget::itemClicked, this, [this] { run(); });
    narrow();
    field_->setFocus();
}

QStringList FindEverything::shown() const {
    QStringList texts;
    for (int i = 0; i < list_->count(); ++i) texts << list_->item(i)->text();
    return texts;
}

void FindEverything::narrow() {
    found_ = findAmong(all_, field_->text());
    list_->clear();
    for (std::size_t k = 0; k < std::min(found_.size(), mostFound); ++k) {
        const Findable& each = all_[found_[k]];
        auto* item = new QListWidgetItem(each.text, list_);
        item->setData(keysRole, each.keys);
        item->setData(sortRole, wordFor(each.sort));
        item->setToolTip(each.more);
    }
    list_->setCurrentRow(found_.empty() ? -1 : 0);
    if (found_.empty()) foot_->setText(tr("Nothing has these words; fewer letters find more."));
}

void FindEverything::run() {
    const int row = list_->currentRow();
    if (row < 0 || row >= static_cast<int>(found_.size())) return;
    const auto chosen = all_[found_[static_cast<std::size_t>(row)]].run;
    close(); // first, so that what is done has the window's focus
    chosen();
}

/// The arrows walk through what was found while one types.
bool FindEverything::eventFilter(QObject* object, QEvent* event) {
    if (object != field_ || event->type() != QEvent::KeyPress) return QDialog::eventFilter(object, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
        run();
        return true;
    }
    const int step = key == Qt::Key_Down       ? 1
                     : key == Qt::Key_Up       ? -1
                     : key == Qt::Key_PageDown ? 10
                     : key == Qt::Key_PageUp   ? -10
                                               : 0;
    if (step == 0 || list_->count() == 0) return QDialog::eventFilter(object, event);
    list_->setCurrentRow(std::clamp(list_->currentRow() + step, 0, list_->count() - 1));
    return true;
}

} // namespace coulter
