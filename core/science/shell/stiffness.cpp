#include "core/science/shell/stiffness.hpp"

#include <algorithm>

namespace jig::shell_fe {

Stiffness::Stiffness(const Model& model, const std::vector<char>& held) {
    const auto points = model.mesh.points.size();
    number.assign(6 * points, -1);
    std::vector<int> free(points, 0);
    for (std::size_t i = 0; i < number.size(); ++i) {
        if (held[i]) continue;
        number[i] = rows++;
        ++free[i / 6];
    }
    std::vector<std::pair<std::uint32_t, std::uint32_t>> pairs;
    pairs.reserve(3 * model.mesh.triangles.size() + model.bars.size() + model.ties.size());
    const auto touch = [&](std::uint32_t a, std::uint32_t b) { pairs.emplace_back(std::minmax(a, b)); };
    for (const auto& t : model.mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) touch(t[k], t[(k + 1) % 3]);
    }
    for (const auto& bar : model.bars) touch(bar.a, bar.b);
    for (const auto& tie : model.ties) touch(tie.a, tie.b);
    neighbours_from.assign(points + 1, 0);
    for (const auto& p : pairs) ++neighbours_from[p.first + 1];
    for (std::size_t i = 0; i < points; ++i) neighbours_from[i + 1] += neighbours_from[i];
    std::vector<std::uint32_t> all(pairs.size());
    auto fill = neighbours_from;
    for (const auto& p : pairs) all[fill[p.first]++] = p.second;
    neighbour.reserve(pairs.size());
    std::size_t from = 0;
    for (std::size_t i = 0; i < points; ++i) {
        const auto begin = all.begin() + static_cast<std::ptrdiff_t>(from),
                   end = all.begin() + static_cast<std::ptrdiff_t>(neighbours_from[i + 1]);
        from = neighbours_from[i + 1];
        std::sort(begin, end);
        neighbours_from[i] = neighbour.size();
        neighbour.insert(neighbour.end(), begin, std::unique(begin, end));
    }
    neighbours_from[points] = neighbour.size();
    before.resize(neighbour.size());
    first.assign(1, 0);
    first.reserve(static_cast<std::size_t>(rows) + 1);
    for (std::size_t i = 0; i < points; ++i) {
        int above = 0;
        for (auto n = neighbours_from[i]; n < neighbours_from[i + 1]; ++n) {
            before[n] = above;
            above += free[neighbour[n]];
        }
        for (std::size_t k = 0; k < 6; ++k) {
            if (number[6 * i + k] < 0) continue;
            for (std::size_t m = k; m < 6; ++m) {
                if (number[6 * i + m] >= 0) row.push_back(number[6 * i + m]);
            }
            for (auto n = neighbours_from[i]; n < neighbours_from[i + 1]; ++n) {
                for (std::size_t m = 0; m < 6; ++m) {
                    const int r = number[6 * std::size_t{neighbour[n]} + m];
                    if (r >= 0) row.push_back(r);
                }
            }
            first.push_back(static_cast<int>(row.size()));
        }
    }
    value.assign(row.size(), 0.0);
}

void Stiffness::add(std::span<const std::uint32_t> points, const double* block) {
    const auto size = 6 * points.size();
    for (std::size_t p = 0; p < points.size(); ++p) {
        for (std::size_t q = 0; q < points.size(); ++q) {
            const auto i = points[p], j = points[q];
            if (j < i || (i == j && p != q)) continue;
            // Columns of point i, rows of point j.
            int base = 0;
            if (i != j) {
                auto n = neighbours_from[i];
                while (neighbour[n] != j) ++n;
                base = before[n];
            }
            for (std::size_t k = 0; k < 6; ++k) {
                const int column = number[6 * std::size_t{i} + k];
                if (column < 0) continue;
                int own = 0;
                if (i != j) {
                    for (std::size_t m = k; m < 6; ++m) own += number[6 * std::size_t{i} + m] >= 0;
                }
                auto* at = value.data() + first[static_cast<std::size_t>(column)] + own + base;
                for (std::size_t m = i == j ? k : 0; m < 6; ++m) {
                    if (number[6 * std::size_t{j} + m] < 0) continue;
                    *at++ += block[(6 * p + k) * size + 6 * q + m];
                }
            }
        }
    }
}

double Stiffness::usual_diagonal() const {
    std::vector<double> all;
    for (std::size_t c = 0; c + 1 < first.size(); ++c)
        all.push_back(value[static_cast<std::size_t>(first[c])]);
    if (all.empty()) return 0;
    const auto middle = all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2);
    std::nth_element(all.begin(), middle, all.end());
    return *middle;
}

Eigen::VectorXd Stiffness::times(const Eigen::VectorXd& x) const {
    Eigen::VectorXd y = Eigen::VectorXd::Zero(rows);
    for (int c = 0; c < rows; ++c) {
        for (int e = first[static_cast<std::size_t>(c)]; e < first[static_cast<std::size_t>(c) + 1]; ++e) {
            const int r = row[static_cast<std::size_t>(e)];
            const double v = value[static_cast<std::size_t>(e)];
            y[r] += v * x[c];
            if (r != c) y[c] += v * x[r];
        }
    }
    return y;
}

}  // namespace jig::shell_fe
