#include "desktop/draft_keeper.h"

#include "data/attach_tables.h"

#include <QThreadPool>

namespace coulter {
namespace {

/// Up to this size in bytes a draft is written with every edit: it takes less than a picture of the window does.
constexpr std::size_t mostAtOnce = 200'000;

} // namespace

DraftKeeper::DraftKeeper(DocumentSession& session, QObject* parent)
    : QObject(parent), session_(session), draft_(draftFolder()) {
    soon_.setSingleShot(true);
    soon_.setInterval(250);
    onDisk_.setSingleShot(true);
    onDisk_.setInterval(1000);
    connect(&soon_, &QTimer::timeout, this, &DraftKeeper::keep);
    connect(&onDisk_, &QTimer::timeout, this,
            [this] { QThreadPool::globalInstance()->start([this] { draft_.flush(); }); });
    connect(&session_, &DocumentSession::started, this, [this] { size_ = 0; });
    connect(&session_, &DocumentSession::stateChanged, this, [this] {
        if (size_ <= mostAtOnce) return keep();
        if (!soon_.isActive()) soon_.start();
    });
    connect(&session_, &DocumentSession::shownChanged, this, [this] {
        if (!soon_.isActive()) soon_.start();
    });
}

DraftKeeper::~DraftKeeper() { QThreadPool::globalInstance()->waitForDone(); }

void DraftKeeper::keep() {
    draft_.opened(session_.path().toStdString());
    if (!session_.isChanged() && session_.shown() == session_.document()) return draft_.clear();
    size_ = draft_.keep(withoutComingDigests(session_.shown()), session_.name().toStdString());
    if (!onDisk_.isActive()) onDisk_.start();
}

} // namespace coulter
