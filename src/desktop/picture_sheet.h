#pragma once
#include "desktop/document_session.h"
#include "desktop/little_pictures.h"
#include "desktop/look.h"

#include <QDialog>
#include <functional>

class QCheckBox;
class QListWidget;

namespace coulter {

/// Something to choose by its picture.
struct PictureChoice {
    QString name;
    Document little; ///< what the picture shows
    bool isNow = false;
    std::function<void(Document&)> choose;   ///< makes it so in the document that is open
    std::function<void(Document&)> add = {}; ///< adds it to what is there; empty: it cannot be added
};

/// Small true pictures to choose from, each drawn by the same pipeline as every figure as soon as it is its turn.
class PictureSheet : public QDialog {
    Q_OBJECT
public:
    /// Whose eyes the pictures are for: in colour alone; or beside that in grey print, and as two kinds of reader who
    /// lack a colour see them.
    enum class For : std::uint8_t { Colour, All };
    /// @param what  what choosing does, for undo
    PictureSheet(DocumentSession& session, const LookSettings& look, const QString& title, const QString& what,
                 std::vector<PictureChoice> choices, For whom, QWidget* parent = nullptr);

    /// How many of its pictures are there.
    std::size_t pictures() const { return pictures_; }
    std::size_t choices() const { return choices_.size(); }

    /// The paper of a picture, for the documents that are shown.
    static Sheet littleSheet();
    /// A panel without its words, alone on such a paper.
    static Document littleDocument(const Document& document, std::size_t panel);

private:
    void choose(int row);

    DocumentSession& session_;
    QString what_;
    std::vector<PictureChoice> choices_;
    QListWidget* list_;
    QCheckBox* adds_; ///< whether what is chosen is added
    std::size_t pictures_ = 0;
    LittlePictures drawer_;
};

} // namespace coulter
