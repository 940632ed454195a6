// jigshell-step: STEP in and out by Open CASCADE, in a process of its own. A broken file can break Open
// CASCADE past catching; here it takes nothing else with it, and it can be stopped at any time.
//
//   jigshell-step facets FILE CHORD_M SECONDS  writes counts, points (m) and triangles, raw, and two doubles:
//                                              the least true radius (m) of hollow and of round faces, 0 for none
//   jigshell-step turned OUT                   reads "radius height" (m), writes the exact turned surface
//   jigshell-step wires OUT                    reads lines of "x y z" (m), parted by empty lines
//   jigshell-step faces OUT                    the same in groups parted by "--": flat faces with holes
//
// Exit 0 done, 3 no sound STEP, 4 no face in it, 5 the shape cannot be built. Progress goes to standard error
// as lines "FRACTION".
#include <sys/resource.h>
#include <BRep_Builder.hxx>
#include <BRep_Tool.hxx>
#include <BRepAdaptor_Surface.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepLProp_SLProps.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRepPrimAPI_MakeRevol.hxx>
#include <gp_Ax1.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <Message_ProgressIndicator.hxx>
#include <Poly_Triangulation.hxx>
#include <Standard_Failure.hxx>
#include <STEPControl_Reader.hxx>
#include <STEPControl_Writer.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Compound.hxx>
#include <TopoDS_Face.hxx>
#include <TopoDS_Wire.hxx>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <iostream>
#include <sstream>
#include <string>
#include <vector>

namespace {

constexpr double kTurn = 0.35;  // rad between neighbouring facets
constexpr int kBroken = 3, kNoFace = 4, kNotBuilt = 5;

void tell(double fraction) {
    std::fprintf(stderr, "%.3f\n", fraction);
}

class Tell : public Message_ProgressIndicator {
  public:
    Tell(double from, double to) : from_(from), to_(to) {}
    void Show(const Message_ProgressScope&, const Standard_Boolean) override {
        tell(from_ + (to_ - from_) * GetPosition());
    }

  private:
    double from_, to_;
};

/// The most that the true faces bend, 1/mm, at the corners of their facets: towards the outside (hollow) and
/// away from it (round).
struct Bends {
    double hollow = 0, round = 0;

    void look(const TopoDS_Face& face, const Poly_Triangulation& facets) {
        if (!facets.HasUVNodes()) return;
        const BRepAdaptor_Surface surface(face);
        BRepLProp_SLProps at(surface, 2, 1e-9);
        const double side = face.Orientation() == TopAbs_REVERSED ? -1 : 1;
        for (int i = 1; i <= facets.NbNodes(); ++i) {
            const auto uv = facets.UVNode(i);
            at.SetParameters(uv.X(), uv.Y());
            if (!at.IsCurvatureDefined()) continue;
            for (const double k : {side * at.MaxCurvature(), side * at.MinCurvature()}) {
                // The tip of a cone bends without end, and is no corner that cloth lies in.
                if (!(std::abs(k) < 1e4)) continue;
                hollow = std::max(hollow, k);
                round = std::max(round, -k);
            }
        }
    }
    static double radius(double bend) { return bend > 1e-7 ? 1e-3 / bend : 0; }
};

struct Facets {
    std::vector<std::array<double, 3>> points;
    std::vector<std::array<std::uint32_t, 3>> triangles;
    Bends bends;

    void add(const TopoDS_Face& face) {
        TopLoc_Location place;
        const auto facets = BRep_Tool::Triangulation(face, place);
        if (facets.IsNull()) return;
        bends.look(face, *facets);
        const auto first = static_cast<std::uint32_t>(points.size());
        for (int i = 1; i <= facets->NbNodes(); ++i) {
            const auto p = facets->Node(i).Transformed(place.Transformation());
            points.push_back({p.X() * 1e-3, p.Y() * 1e-3, p.Z() * 1e-3});
        }
        for (int i = 1; i <= facets->NbTriangles(); ++i) {
            int a = 0, b = 0, c = 0;
            facets->Triangle(i).Get(a, b, c);
            if (face.Orientation() == TopAbs_REVERSED) std::swap(b, c);
            const auto at = [&](int k) { return first + static_cast<std::uint32_t>(k) - 1; };
            triangles.push_back({at(a), at(b), at(c)});
        }
    }
};

int facets(const char* file, double chord) {
    STEPControl_Reader reader;
    tell(0.02);
    if (reader.ReadFile(file) != IFSelect_RetDone) return kBroken;
    tell(0.3);
    Handle(Tell) transfer = new Tell(0.3, 0.6);
    reader.TransferRoots(transfer->Start());
    const auto shape = reader.OneShape();
    if (shape.IsNull()) return kNoFace;
    Handle(Tell) meshing = new Tell(0.6, 0.95);
    BRepMesh_IncrementalMesh mesher;
    mesher.SetShape(shape);
    mesher.ChangeParameters().Deflection = chord * 1e3;
    mesher.ChangeParameters().Angle = kTurn;
    mesher.Perform(meshing->Start());
    Facets out;
    for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next())
        out.add(TopoDS::Face(faces.Current()));
    if (out.triangles.empty()) return kNoFace;
    const std::array<std::uint64_t, 2> counts{out.points.size(), out.triangles.size()};
    std::fwrite(counts.data(), sizeof counts, 1, stdout);
    std::fwrite(out.points.data(), sizeof out.points[0], out.points.size(), stdout);
    std::fwrite(out.triangles.data(), sizeof out.triangles[0], out.triangles.size(), stdout);
    const std::array<double, 2> radii{Bends::radius(out.bends.hollow), Bends::radius(out.bends.round)};
    std::fwrite(radii.data(), sizeof radii, 1, stdout);
    return std::fflush(stdout) == 0 ? 0 : kNotBuilt;
}

int write(const TopoDS_Shape& shape, const char* file) {
    STEPControl_Writer writer;
    return writer.Transfer(shape, STEPControl_AsIs) == IFSelect_RetDone &&
                   writer.Write(file) == IFSelect_RetDone
               ? 0
               : kNotBuilt;
}

int turned(const char* file) {
    BRepBuilderAPI_MakePolygon line;
    for (double r = 0, z = 0; std::cin >> r >> z;) line.Add(gp_Pnt(r * 1e3, 0, z * 1e3));
    return write(BRepPrimAPI_MakeRevol(line.Wire(), gp_Ax1(gp_Pnt(0, 0, 0), gp_Dir(0, 0, 1))).Shape(), file);
}

/// Lines "x y z" from standard input (m), parted by empty lines; groups of them by a line "--". A line whose
/// ends are one point is closed.
std::vector<std::vector<TopoDS_Wire>> read_wires() {
    std::vector<std::vector<TopoDS_Wire>> groups(1);
    std::vector<gp_Pnt> points;
    const auto finish = [&] {
        if (points.size() >= 2) {
            const bool closed = points.size() > 3 && points.front().Distance(points.back()) < 1e-6;
            if (closed) points.pop_back();
            BRepBuilderAPI_MakePolygon line;
            for (const auto& p : points) line.Add(p);
            if (closed) line.Close();
            groups.back().push_back(line.Wire());
        }
        points.clear();
    };
    for (std::string text; std::getline(std::cin, text);) {
        double x = 0, y = 0, z = 0;
        std::istringstream words(text);
        if (words >> x >> y >> z) {
            const gp_Pnt p(x * 1e3, y * 1e3, z * 1e3);
            // Points that fall together make no edge.
            if (points.empty() || points.back().Distance(p) > 1e-6) points.push_back(p);
            continue;
        }
        finish();
        if (text == "--") groups.emplace_back();
    }
    finish();
    return groups;
}

int wires(const char* file) {
    TopoDS_Compound all;
    BRep_Builder builder;
    builder.MakeCompound(all);
    for (const auto& group : read_wires()) {
        for (const auto& wire : group) builder.Add(all, wire);
    }
    return write(all, file);
}

/// Each group is a flat face: its outer line first, then its holes, run the other way round.
int faces(const char* file) {
    TopoDS_Compound all;
    BRep_Builder builder;
    builder.MakeCompound(all);
    for (const auto& group : read_wires()) {
        if (group.empty()) continue;
        BRepBuilderAPI_MakeFace face(group.front(), Standard_True);
        if (!face.IsDone()) return kNotBuilt;
        for (std::size_t i = 1; i < group.size(); ++i) face.Add(group[i]);
        builder.Add(all, face.Face());
    }
    return write(all, file);
}

}  // namespace

int main(int argc, char** argv) {
    // A hostile file may ask for all the memory there is.
    constexpr rlim_t kMemory = rlim_t{6} << 30U;
    const rlimit limit{kMemory, kMemory};
    ::setrlimit(RLIMIT_AS, &limit);
    const rlimit no_core{0, 0};
    ::setrlimit(RLIMIT_CORE, &no_core);
    // It talks on standard output, which carries the answer.
    Message::DefaultMessenger()->ChangePrinters().Clear();
    const std::string verb = argc > 1 ? argv[1] : "";
    try {
        if (verb == "facets" && argc == 5) {
            const auto seconds = static_cast<rlim_t>(std::max(1L, std::strtol(argv[4], nullptr, 10)));
            const rlimit time{seconds, seconds + 1};
            ::setrlimit(RLIMIT_CPU, &time);
            return facets(argv[2], std::strtod(argv[3], nullptr));
        }
        if (verb == "turned" && argc == 3) return turned(argv[2]);
        if (verb == "wires" && argc == 3) return wires(argv[2]);
        if (verb == "faces" && argc == 3) return faces(argv[2]);
        std::fputs("usage: jigshell-step facets FILE CHORD_M SECONDS | turned OUT | wires OUT | faces OUT\n",
                   stderr);
        return 2;
    } catch (const Standard_Failure&) {
        return kNotBuilt;
    } catch (const std::exception&) {
        return kNotBuilt;
    }
}
