#include "desktop/scratch_strip.h"
#include "desktop/translation.h"

#include "formula/algebra/unit_inference.h"
#include "formula/lines/answer.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/fourier_lines.h"
#include "formula/lines/read_page.h"
#include "typeset/words.h"

#include <QLabel>
#include <QLineEdit>
#include <QTimer>
#include <QVBoxLayout>

namespace coulter {

ScratchStrip::ScratchStrip(DocumentSession& session, const LookSettings& look, QWidget* parent)
    : QWidget(parent), session_(session), look_(look), field_(new QLineEdit), answer_(new QLabel),
      pause_(new QTimer(this)) {
    setObjectName("scratch");
    field_->setObjectName("scratchField");
    field_->setPlaceholderText(tr("Try a value: f(2), sin(x) = 0 for x in [1, 10]"));
    field_->setAccessibleName(tr("Try a value"));
    answer_->setObjectName("scratchAnswer");
    answer_->setAccessibleName(tr("Answer"));
    answer_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    answer_->setWordWrap(true);
    answer_->hide();
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.look().px(16), look.look().px(4), look.look().px(10), look.look().px(6));
    column->setSpacing(look.look().px(2));
    column->addWidget(answer_);
    column->addWidget(field_);
    pause_->setSingleShot(true);
    pause_->setInterval(120);
    connect(pause_, &QTimer::timeout, this, &ScratchStrip::ask);
    connect(field_, &QLineEdit::textChanged, this, [this] { pause_->start(); });
    connect(&session_, &DocumentSession::shownChanged, this, [this] {
        if (!field_->text().trimmed().isEmpty()) pause_->start();
    });
    connect(field_, &QLineEdit::returnPressed, this, [this] {
        const QString text = field_->text().trimmed();
        if (text.isEmpty()) return;
        const bool isSearch = text.contains(" for ");
        // A series is written out on the page.
        const std::string series = fourierSeriesLine(readPage(session_.shown()), text.toStdString());
        emit wanted(!series.empty() ? QString::fromStdString(series) : isSearch ? text : text + " = ?");
        field_->clear();
    });
}

void ScratchStrip::ask() {
    if (asking_) {
        again_ = true;
        return;
    }
    const std::string text = field_->text().trimmed().toStdString();
    if (text.empty()) return show("", false);
    // An integral may take a second: the window does not wait for it.
    asking_ = true;
    thread_ = std::jthread([this, text, document = session_.shown()](const std::stop_token& stop) {
        const Page page = readPage(document);
        const Answer answer = evaluate(page, text);
        const UnitsOfText units = unitsOfText(page, text);
        const bool wrong = !answer.problems.empty();
        QString said = wrong ? spoken(answer.problems.front()) : spoken(answerText(answer, true));
        if (!wrong && !units.unit.empty() && units.unit != "1")
            said += tr(", in %1").arg(QString::fromStdString(printedUnit(units.unit)));
        if (!wrong && !units.problems.empty()) said += "\n" + spoken(units.problems.front());
        if (stop.stop_requested()) return;
        QMetaObject::invokeMethod(this, [this, said, wrong] {
            asking_ = false;
            if (!std::exchange(again_, false)) return show(said, wrong);
            ask();
        });
    });
}

void ScratchStrip::show(const QString& text, bool wrong) {
    constexpr int most = 600;
    answer_->setText(text.size() > most ? text.left(most) + "…" : text);
    answer_->setToolTip(text.size() > most ? text : QString());
    answer_->setStyleSheet("color:" + (wrong ? look_.look().muted() : look_.look().accent()).name());
    answer_->setVisible(!text.isEmpty());
}

} // namespace coulter
