#include "core/science/mesh/polygon_files.hpp"

#include <CGAL/IO/OBJ.h>
#include <CGAL/IO/PLY.h>
#include <CGAL/Simple_cartesian.h>
#include <fmt/format.h>

#include <charconv>
#include <istream>
#include <streambuf>

namespace jig {
namespace {

using Kernel = CGAL::Simple_cartesian<double>;
using Soup = std::vector<std::vector<std::size_t>>;

/// The bytes as a stream that tells how far it is and ends when somebody asks to stop.
class Told : public std::streambuf {
  public:
    Told(std::string_view bytes, Progress& progress) : bytes_(bytes), progress_(progress) { next(); }

  protected:
    int_type underflow() override {
        if (gptr() < egptr()) return traits_type::to_int_type(*gptr());
        return next() ? traits_type::to_int_type(*gptr()) : traits_type::eof();
    }

  private:
    bool next() {
        if (at_ >= bytes_.size() || progress_.stopped()) return false;
        progress_.report(static_cast<double>(at_) / static_cast<double>(bytes_.size()), "reading the mesh");
        const auto share = std::min<std::size_t>(bytes_.size() - at_, 1U << 18U);
        // Streams want pointers they could write through; nothing is put back here.
        char* begin = const_cast<char*>(bytes_.data()) + at_;
        setg(begin, begin, begin + share);
        at_ += share;
        return true;
    }
    std::string_view bytes_;
    Progress& progress_;
    std::size_t at_ = 0;
};

TriangleMesh finished(const std::vector<Kernel::Point_3>& points, const Soup& polygons,
                      const std::string& where, double unit) {
    TriangleMesh mesh;
    mesh.points.reserve(points.size());
    for (const auto& p : points) {
        if (!std::isfinite(p.x()) || !std::isfinite(p.y()) || !std::isfinite(p.z()))
            throw InputError(where, fmt::format("point {} is not a finite number", mesh.points.size() + 1),
                             "export the shape again, or mend that point in the program it came from");
        mesh.points.emplace_back(p.x() * unit, p.y() * unit, p.z() * unit);
    }
    mesh.triangles.reserve(polygons.size());
    std::vector<std::uint32_t> polygon;
    for (std::size_t f = 0; f < polygons.size(); ++f) {
        polygon.clear();
        for (const auto i : polygons[f]) {
            if (i >= points.size())
                throw InputError(where, fmt::format("face {} names a point that is not there", f + 1),
                                 "copy or export the file again");
            polygon.push_back(static_cast<std::uint32_t>(i));
        }
        cut_into_triangles(mesh.points, polygon, mesh.triangles);
    }
    if (mesh.empty())
        throw InputError(where, "the file holds no face",
                         "export the shape as a mesh of faces, not of points");
    return mesh;
}

template <class Read>
TriangleMesh guarded(std::string_view bytes, const std::string& where, double unit, const char* kind,
                     Progress& progress, Read&& read) {
    std::vector<Kernel::Point_3> points;
    Soup polygons;
    bool sound = false;
    try {
        Told buffer(bytes, progress);
        std::istream in(&buffer);
        sound = read(in, points, polygons);
    } catch (const std::exception&) {
        sound = false;
    }
    progress.check();
    if (!sound)
        throw InputError(where,
                         std::string("the file is cut short or no sound ") + kind +
                             ": it has no face, or a face names a point that is not there",
                         "copy or export it again");
    return finished(points, polygons, where, unit);
}

/// Refuses headers that promise more than the file could hold, before anything makes room for it.
void check_ply_counts(std::string_view bytes, const std::string& where) {
    auto head = bytes.substr(0, bytes.find("end_header"));
    while (!head.empty()) {
        const auto line = head.substr(0, head.find('\n'));
        head.remove_prefix(std::min(head.size(), line.size() + 1));
        if (line.substr(0, 8) != "element ") continue;
        const auto space = line.rfind(' ');
        std::uint64_t count = 0;
        const auto word = line.substr(space + 1);
        const auto [stop, bad] = std::from_chars(word.data(), word.data() + word.size(), count);
        if (bad != std::errc{} || count > bytes.size())
            throw InputError(where,
                             fmt::format("its header promises \"{}\" and the file is {} bytes long",
                                         line.substr(0, 40), bytes.size()),
                             "copy or export it again");
    }
}

}  // namespace

TriangleMesh read_obj(std::string_view bytes, const std::string& where, double unit, Progress& progress) {
    return guarded(bytes, where, unit, "OBJ", progress, [](std::istream& in, auto& points, auto& polygons) {
        return CGAL::IO::read_OBJ(in, points, polygons, CGAL::parameters::verbose(false));
    });
}

TriangleMesh read_ply(std::string_view bytes, const std::string& where, double unit, Progress& progress) {
    check_ply_counts(bytes, where);
    return guarded(bytes, where, unit, "PLY", progress, [](std::istream& in, auto& points, auto& polygons) {
        return CGAL::IO::read_PLY(in, points, polygons, CGAL::parameters::verbose(false));
    });
}

void cut_into_triangles(const std::vector<Point>& points, const std::vector<std::uint32_t>& polygon,
                        std::vector<Triangle>& out) {
    if (polygon.size() < 3) return;
    if (polygon.size() == 3) {
        out.push_back({polygon[0], polygon[1], polygon[2]});
        return;
    }
    Point normal = Point::Zero();
    for (std::size_t i = 0; i < polygon.size(); ++i)
        normal += points[polygon[i]].cross(points[polygon[(i + 1) % polygon.size()]]);
    const auto frame = frame_across(normal.norm() > 0 ? normal : Point::UnitZ());
    std::vector<std::uint32_t> left = polygon;
    const auto flat = [&](std::uint32_t i) { return frame.flat(points[i]); };
    const auto turn = [](const Point2& a, const Point2& b, const Point2& c) {
        return (b - a).x() * (c - a).y() - (b - a).y() * (c - a).x();
    };
    // Past this the search for ears would be felt; a fan keeps hostile files from hanging the program.
    constexpr std::size_t kLongest = 2000;
    while (left.size() > 3) {
        const auto n = left.size();
        std::size_t ear = 0;
        for (std::size_t i = 0; i < n && n < kLongest; ++i) {
            const auto a = flat(left[(i + n - 1) % n]), b = flat(left[i]), c = flat(left[(i + 1) % n]);
            if (turn(a, b, c) <= 0) continue;
            const bool clear = std::none_of(left.begin(), left.end(), [&](std::uint32_t k) {
                if (k == left[(i + n - 1) % n] || k == left[i] || k == left[(i + 1) % n]) return false;
                const auto p = flat(k);
                return turn(a, b, p) >= 0 && turn(b, c, p) >= 0 && turn(c, a, p) >= 0;
            });
            if (clear) {
                ear = i;
                break;
            }
        }
        out.push_back({left[(ear + n - 1) % n], left[ear], left[(ear + 1) % n]});
        left.erase(left.begin() + static_cast<std::ptrdiff_t>(ear));
    }
    out.push_back({left[0], left[1], left[2]});
}

}  // namespace jig
