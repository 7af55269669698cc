#include "desktop/examples_window.h"

#include "desktop/picture_grid.h"

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace coulter {
namespace {

constexpr int examplePictureWidth = 200, examplePictureHeight = 150; // px at the usual scale

} // namespace

ExamplesWindow::ExamplesWindow(const LookSettings& look, QWidget* parent)
    : QDialog(parent), examples_(allExamples()), search_(new QLineEdit), list_(new QListWidget), sentence_(new QLabel) {
    setWindowTitle(tr("Examples"));
    setObjectName("examplesWindow");
    search_->setPlaceholderText(tr("a word: two scales, histogram, contour, sum, data …"));
    search_->setAccessibleName(tr("Words to find examples by"));
    search_->setObjectName("exampleSearch");
    search_->setClearButtonEnabled(true);
    list_->setObjectName("examplePictures");
    list_->setAccessibleName(tr("Examples"));
    const int wide = look.look().px(examplePictureWidth), high = look.look().px(examplePictureHeight);
    makePictureGrid(*list_, look.look(), {wide, high});
    sentence_->setWordWrap(true);
    sentence_->setObjectName("exampleSentence");
    sentence_->setMinimumHeight(look.look().px(40));
    auto* column = new QVBoxLayout(this);
    column->addWidget(search_);
    column->addWidget(list_, 1);
    column->addWidget(sentence_);
    resize(look.look().px(960), look.look().px(680));

    QPixmap empty(wide, high);
    empty.fill(look.look().page());
    std::vector<Document> documents;
    for (const Example& example : examples_) {
        documents.push_back(example.document);
        auto* item = new QListWidgetItem(QIcon(empty), spelledExample(example.name), list_);
        item->setTextAlignment(Qt::AlignHCenter);
        item->setToolTip(example.sentence);
        item->setData(Qt::AccessibleDescriptionRole, example.sentence);
    }
    connect(search_, &QLineEdit::textChanged, this, &ExamplesWindow::narrow);
    connect(search_, &QLineEdit::returnPressed, this, [this] { choose(list_->currentRow()); });
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
        sentence_->setText(row < 0 ? QString() : examples_[static_cast<std::size_t>(row)].sentence);
    });
    connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { choose(list_->row(item)); });
    connect(list_, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { choose(list_->row(item)); });
    connect(&drawer_, &LittlePictures::drawn, this, [this](int i, const QImage& image) {
        showPicture(*list_->item(i), image);
        ++pictures_;
    });
    const double ratio = devicePixelRatioF();
    drawer_.draw(std::move(documents), wide, ratio,
                 [wide, high, ratio, ground = look.look().page()](const QImage& image) {
                     return onGround(image, (QSizeF(wide, high) * ratio).toSize(), ground);
                 });
    search_->setFocus();
}

QStringList ExamplesWindow::shown() const {
    QStringList names;
    for (int i = 0; i < list_->count(); ++i) {
        if (!list_->item(i)->isHidden()) names << examples_[static_cast<std::size_t>(i)].name;
    }
    return names;
}

/// Each of the words must be there.
void ExamplesWindow::narrow(const QString& wanted) {
    const QStringList words = wanted.toLower().split(' ', Qt::SkipEmptyParts);
    int first = -1;
    for (int i = 0; i < list_->count(); ++i) {
        const QString& all = examples_[static_cast<std::size_t>(i)].words;
        const bool fits = std::ranges::all_of(words, [&](const QString& word) { return all.contains(word); });
        list_->item(i)->setHidden(!fits);
        if (fits && first < 0) first = i;
    }
    list_->setCurrentRow(first);
    if (first < 0) sentence_->setText(tr("No example has these words; fewer letters find more."));
}

void ExamplesWindow::choose(int row) {
    if (row < 0 || row >= static_cast<int>(examples_.size()) || list_->item(row)->isHidden()) return;
    emit chosen(examples_[static_cast<std::size_t>(row)]);
    close();
}

} // namespace coulter
