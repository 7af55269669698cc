#pragma once
#include "desktop/document_session.h"
#include "plots/telling.h"

#include <QWidget>

class QComboBox;
class QLineEdit;
class QLabel;

namespace coulter {

/// How the variables of a curve or a field are sampled, to be switched in place: adaptively, by count or by step; or
/// where something was measured.
class SamplingFields : public QWidget {
    Q_OBJECT
public:
    explicit SamplingFields(DocumentSession& session, QWidget* parent = nullptr);
    /// Shows these variables and their grids; at most two.
    void show(const std::vector<VariableSampling>& variables);

private:
    struct Row {
        QLabel* name = nullptr;
        QComboBox* way = nullptr;
        QLineEdit* value = nullptr;
        std::string variable;
        Interval interval;
    };
    void apply(std::size_t row);

    DocumentSession& session_;
    std::array<Row, 2> rows_;
};

} // namespace coulter
