#include "core/science/mesh/widest.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/science/mesh/slice.hpp"

namespace jig {

double widest_height(const TriangleMesh& mesh, const Topology& topology, const Point& axis,
                     Progress& progress) {
    const auto frame = frame_across(axis);
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, frame.w.dot(mesh.points[i]));
            high = std::max(high, frame.w.dot(mesh.points[i]));
        }
    }
    // Largest area inside the outline; of equal ones the middle. A second look closes in on it.
    double best = (low + high) / 2, reach = (high - low) / 2;
    for (int pass = 0; pass < 3; ++pass) {
        std::vector<double> heights;
        constexpr int kLooks = 41;
        for (int i = 0; i < kLooks; ++i) {
            const double h = best + reach * (2.0 * (i + 0.5) / kLooks - 1);
            if (h > low && h < high) heights.push_back(h);
        }
        double largest = 0, sum = 0, count = 0;
        for (const auto& cut : sections(mesh, topology, frame, heights, progress)) {
            double area = 0;
            for (const auto& loop : cut.loops) area += std::max(0.0, signed_area(loop));
            for (const auto& line : cut.open_lines) area += std::abs(signed_area(line));
            if (area > largest * (1 + 1e-6)) {
                largest = area;
                sum = count = 0;
            }
            if (area >= largest * (1 - 1e-6)) {
                sum += cut.height;
                ++count;
            }
        }
        if (count > 0) best = sum / count;
        reach /= 10;
    }
    return best;
}

}  // namespace jig
