#pragma once
#include "figure/document.h"
#include "plots/effort.h"

#include <QImage>
#include <QObject>
#include <functional>
#include <thread>
#include <vector>

namespace coulter {

/// As fine as so little a picture shows, and soon there.
inline const Effort littleEffort{0.1, 150 / 25.4, 20'000, false, false, usualOperations / 50};

/// Draws small true pictures of documents one after the other, by the same pipeline as every figure, off the interface
/// thread.
class LittlePictures : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;

    /// Begins; what was drawn before is left.
    /// @param wide  pixels of the screen
    /// @param after  what is made of each picture; empty: nothing
    void draw(std::vector<Document> documents, int wide, double ratio, std::function<QImage(const QImage&)> after = {});

signals:
    void drawn(int index, const QImage& picture);

private:
    std::jthread drawer_;
};

} // namespace coulter
