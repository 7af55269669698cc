#include "desktop/examples_window.h"

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace coulter {
namespace {

constexpr int examplePictureWidth = 200, examplePictureHeight = 150; // px at the usual scale

/// On a ground of one size, so that tall and wide figures stand in one grid.
QImage onGround(const QImage& image, int wide, int high, const QColor& ground) {
    QImage all(wide, high, QImage::Format_RGB32);
    all.fill(ground);
    const QImage fitting = image.scaled(wide, high, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    for (int y = 0; y < fitting.height(); ++y) {
        const auto* from = reinterpret_cast<const QRgb*>(fitting.constScanLine(y));
        std::copy(from, from + fitting.width(),
                  reinterpret_cast<QRgb*>(all.scanLine(y + (high - fitting.height()) / 2)) +
                      (wide - fitting.width()) / 2);
    }
    return all;
}

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
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setUniformItemSizes(true);
    list_->setSpacing(look.look().px(6));
    const int wide = look.look().px(examplePictureWidth), high = look.look().px(examplePictureHeight);
    list_->setIconSize({wide, high});
    list_->setGridSize({wide + look.look().px(16), high + look.look().px(34)});
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
        QIcon icon(QPixmap::fromImage(image));
        icon.addPixmap(QPixmap::fromImage(image), QIcon::Selected); // no tint over the current one
        list_->item(i)->setIcon(icon);
        ++pictures_;
    });
    const double ratio = devicePixelRatioF();
    drawer_.draw(std::move(documents), wide, ratio,
                 [wide, high, ratio, ground = look.look().page()](const QImage& image) {
                     return onGround(image, static_cast<int>(wide * ratio), static_cast<int>(high * ratio), ground);
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
