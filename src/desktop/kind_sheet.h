#pragma once
#include "desktop/document_session.h"
#include "desktop/look.h"
#include "plots/plot_kind.h"

#include <QDialog>
#include <thread>

class QListWidget;

namespace coulter {

/// “Draw as …”: small true pictures of one plot in every kind that fits it, each drawn by the same pipeline as every
/// figure as soon as it is its turn. Choosing one draws the plot so.
class KindSheet : public QDialog {
    Q_OBJECT
public:
    /// @param path  of the plot
    KindSheet(DocumentSession& session, const LookSettings& look, const ItemPath& path, QWidget* parent = nullptr);

    /// How many of its pictures are there.
    std::size_t pictures() const { return pictures_; }
    std::size_t ways() const { return ways_.size(); }

private:
    void choose(int row);

    DocumentSession& session_;
    ItemPath path_;
    std::vector<WayToDraw> ways_;
    QListWidget* list_;
    std::size_t pictures_ = 0;
    std::jthread drawer_; ///< last, so that it has ended before anything else goes
};

} // namespace coulter
