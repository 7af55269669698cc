#include "sampling/field.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

namespace coulter {

double FieldSamples::lengthAt(std::size_t point) const {
    double sum = 0;
    for (const auto& component : values) sum += component[point] * component[point];
    return std::sqrt(sum);
}

FieldSamples sampleMeshgrid(const Program& f, std::vector<double> columns, std::vector<double> rows,
                            std::stop_token stop, const std::function<void(std::size_t)>& evaluated) {
    FieldSamples samples;
    const std::size_t width = columns.size(), count = width * rows.size();
    for (std::size_t k = 0; k < f.outputs.size(); ++k) samples.values.emplace_back(count);
    // Row by row, with the program's own blocks within each: the bits do not depend on how rows are shared out.
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, rows.size()),
                      [&](const tbb::blocked_range<std::size_t>& range) {
                          Evaluator evaluator(f);
                          evaluator.limit(stop, std::numeric_limits<std::int64_t>::max());
                          std::vector<double> height(width);
                          std::vector<double*> into(samples.values.size());
                          for (std::size_t row = range.begin(); row < range.end(); ++row) {
                              for (std::size_t k = 0; k < into.size(); ++k)
                                  into[k] = samples.values[k].data() + row * width;
                              if (stop.stop_requested()) {
                                  for (double* values : into) std::fill_n(values, width, std::nan(""));
                                  continue;
                              }
                              std::fill(height.begin(), height.end(), rows[row]);
                              const double* const in[] = {columns.data(), height.data()};
                              evaluator(in, into, width);
                              if (evaluated) evaluated(width);
                          }
                      });
    samples.columns = std::move(columns);
    samples.rows = std::move(rows);
    samples.evaluations = count;
    samples.finished = !stop.stop_requested();
    return samples;
}

} // namespace coulter
