// The stand in OpenGL 3.3.
#include <QOpenGLBuffer>
#include <QOpenGLFunctions_3_3_Core>
#include <QOpenGLShaderProgram>
#include <QOpenGLTexture>
#include <QOpenGLVertexArrayObject>
#include <QOpenGLWidget>
#include <QPainter>

#include "app/stand/stand.hpp"

namespace jig::app {
namespace {

constexpr const char* kSurfaceVertex = R"(#version 330 core
layout(location=0) in vec3 place; layout(location=1) in vec3 normal; layout(location=2) in vec3 colour; layout(location=3) in float pattern;
uniform mat4 view; out vec3 n; out vec3 c; flat out int kind; out vec3 at;
void main() { gl_Position = view * vec4(place, 1.0); n = normal; c = colour; kind = int(pattern + 0.5); at = place; }
)";
constexpr const char* kSurfaceFragment = R"(#version 330 core
in vec3 n; in vec3 c; flat in int kind; in vec3 at; out vec4 shade; uniform vec3 eye; uniform vec3 inkline;
void main() {
    vec3 m = normalize(n); vec3 to = normalize(eye - at);
    if (dot(m, to) < 0.0) m = -m;
    // A window to the upper left, the sky above, and a little from the paper below.
    float light = 0.52 + 0.34 * max(0.0, dot(m, normalize(vec3(-0.5, -0.6, 0.75)))) + 0.14 * m.z;
    vec3 base = c * light;
    vec2 px = gl_FragCoord.xy;
    if (kind == 1 && length(mod(px, 9.0) - 4.5) < 1.3) base = mix(base, inkline, 0.7);
    if (kind == 2 && (mod(px.x + px.y, 10.0) < 1.2 || mod(px.x - px.y, 10.0) < 1.2)) base = mix(base, vec3(1.0), 0.45);
    if (kind == 3 && mod(at.z * 1000.0 + 3.0 * sin(at.x * 40.0), 7.0) < 0.9) base *= 0.93;
    if (kind == 4 && mod(px.x + px.y, 7.0) < 1.2) base = mix(base, inkline, 0.6);
    float rim = 1.0 - abs(dot(m, to));
    base = mix(base, inkline, 0.38 * pow(rim, 4.0));
    shade = vec4(base, 1.0);
}
)";
constexpr const char* kShadowVertex = R"(#version 330 core
layout(location=0) in vec2 place; uniform mat4 view; uniform vec4 box; uniform float ground; out vec2 uv;
void main() { uv = place; gl_Position = view * vec4(mix(box.x, box.z, place.x), mix(box.y, box.w, place.y), ground, 1.0); }
)";
constexpr const char* kShadowFragment = R"(#version 330 core
in vec2 uv; out vec4 shade; uniform sampler2D soft; void main() { shade = vec4(0.0, 0.0, 0.0, 0.30 * texture(soft, uv).r); }
)";

// A line's stroke: pixels that it is wide, and whether it is dashed. Each piece is a flat strip across the
// view, drawn once for each of its corners (end 0 or 1, side -1 or 1), long enough at its ends to close the
// corners between pieces. No geometry shader: software OpenGL takes many times as long with one.
constexpr const char* kLineVertex = R"(#version 330 core
layout(location=0) in vec2 corner; layout(location=1) in vec3 from; layout(location=2) in vec3 to;
layout(location=3) in vec3 colour; layout(location=4) in vec2 stroke;
uniform mat4 view; uniform vec2 room; uniform float metre;
out vec3 c; out float along; flat out float dashed;
void main() {
    c = colour; dashed = stroke.y; along = 0.0;
    vec4 a = view * vec4(from, 1.0), b = view * vec4(to, 1.0);
    const float near = 1e-5;
    if (a.w < near && b.w < near) { gl_Position = vec4(2.0, 2.0, 2.0, 1.0); return; }
    if (a.w < near) a = mix(a, b, (near - a.w) / (b.w - a.w));
    if (b.w < near) b = mix(b, a, (near - b.w) / (a.w - b.w));
    vec2 way = (b.xy / b.w - a.xy / a.w) * room;
    float far = length(way);
    way = far > 1e-4 ? way / far : vec2(1.0, 0.0);
    vec2 cap = stroke.y > 0.5 ? vec2(0.0) : way * (2.0 * corner.x - 1.0);
    gl_Position = corner.x > 0.5 ? b : a;
    gl_Position.xy += (vec2(-way.y, way.x) * corner.y + cap) * stroke.x / room * gl_Position.w;
    gl_Position.z -= 0.0008 * gl_Position.w;
    // Dashes go by the axis that it follows most: pieces in a row go on in step, and turning moves none.
    vec3 d = abs(to - from);
    int axis = d.x >= d.y && d.x >= d.z ? 0 : d.y >= d.z ? 1 : 2;
    along = (corner.x > 0.5 ? to : from)[axis] * metre;
}
)";
constexpr const char* kLineFragment = R"(#version 330 core
in vec3 c; in float along; flat in float dashed; out vec4 shade;
void main() { if (dashed > 0.5 && fract(along / 11.0) > 0.6) discard; shade = vec4(c, 1.0); }
)";

/// The outline on the ground, blurred by shrinking and growing.
QImage soft_shadow(const Loops& loops, const QRectF& box) {
    QImage image(256, 256, QImage::Format_Grayscale8);
    image.fill(Qt::black);
    {
        QPainter p(&image);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(Qt::NoPen);
        p.setBrush(Qt::white);
        for (const auto& loop : loops) {
            QPolygonF poly;
            for (const auto& q : loop)
                poly << QPointF((q.x() - box.left()) / box.width() * 256,
                                (q.y() - box.top()) / box.height() * 256);
            p.drawPolygon(poly);
        }
    }
    const auto soft = image.scaled(22, 22, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                          .scaled(128, 128, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    return soft.convertToFormat(QImage::Format_RGBA8888);
}

class GlCanvas : public QOpenGLWidget, public Canvas, private QOpenGLFunctions_3_3_Core {
  public:
    explicit GlCanvas(Stand& stand) : stand_(stand) {
        QSurfaceFormat format;
        format.setVersion(3, 3);
        format.setProfile(QSurfaceFormat::CoreProfile);
        format.setDepthBufferSize(24);
        format.setSamples(4);
        setFormat(format);
    }
    ~GlCanvas() override {
        makeCurrent();
        surface_.reset();
        shadow_.reset();
        lines_.reset();
        strip_.destroy();
        line_pieces_.destroy();
        soft_.reset();
        corners_.destroy();
        quad_.destroy();
        doneCurrent();
    }
    QWidget* widget() override { return this; }
    void scene_changed() override { fresh_ = true; }

  protected:
    void initializeGL() override {
        initializeOpenGLFunctions();
        surface_ = program(kSurfaceVertex, kSurfaceFragment);
        shadow_ = program(kShadowVertex, kShadowFragment);
        lines_ = program(kLineVertex, kLineFragment);
        line_array_.create();
        line_pieces_.create();
        strip_.create();
        strip_.bind();
        constexpr std::array<float, 8> ends{0, -1, 0, 1, 1, -1, 1, 1};
        strip_.allocate(ends.data(), static_cast<int>(sizeof ends));
        vertices_.create();
        corners_.create();
        quad_array_.create();
        quad_.create();
        quad_array_.bind();
        quad_.bind();
        constexpr std::array<float, 8> unit{0, 0, 1, 0, 0, 1, 1, 1};
        quad_.allocate(unit.data(), static_cast<int>(sizeof unit));
        glEnableVertexAttribArray(0);
        glVertexAttribPointer(0, 2, GL_FLOAT, GL_FALSE, 0, nullptr);
        quad_array_.release();
        fresh_ = true;
        revision_ = 0;
    }
    void paintGL() override {
        if (fresh_) upload();
        const auto& paper = stand_.ink().paper;
        glClearColor(paper.redF(), paper.greenF(), paper.blueF(), 1);
        glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
        const auto view = stand_.camera().matrix(size());
        if (soft_ && !stand_.scene().corners.empty()) {
            glDisable(GL_DEPTH_TEST);
            glEnable(GL_BLEND);
            glBlendFunc(GL_SRC_ALPHA, GL_ONE_MINUS_SRC_ALPHA);
            shadow_->bind();
            shadow_->setUniformValue("view", view);
            shadow_->setUniformValue(
                "box", QVector4D(static_cast<float>(box_.left()), static_cast<float>(box_.top()),
                                 static_cast<float>(box_.right()), static_cast<float>(box_.bottom())));
            shadow_->setUniformValue("ground", static_cast<float>(stand_.scene().ground));
            shadow_->setUniformValue("soft", 0);
            soft_->bind(0);
            quad_array_.bind();
            glDrawArrays(GL_TRIANGLE_STRIP, 0, 4);
            quad_array_.release();
            soft_->release();
            shadow_->release();
            glDisable(GL_BLEND);
        }
        glEnable(GL_DEPTH_TEST);
        surface_->bind();
        surface_->setUniformValue("view", view);
        const Point eye = stand_.camera().eye();
        surface_->setUniformValue("eye", QVector3D(static_cast<float>(eye.x()), static_cast<float>(eye.y()),
                                                   static_cast<float>(eye.z())));
        const bool light_paper = paper.lightness() > 128;
        surface_->setUniformValue(
            "inkline", light_paper ? QVector3D(0.12f, 0.14f, 0.12f) : QVector3D(0.05f, 0.06f, 0.06f));
        vertices_.bind();
        if (stand_.turning() && coarse_count_ > 0)
            glDrawArrays(GL_TRIANGLES, count_, coarse_count_);
        else
            glDrawArrays(GL_TRIANGLES, 0, count_);
        vertices_.release();
        surface_->release();
        lines_->bind();
        lines_->setUniformValue("view", view);
        lines_->setUniformValue("room", QVector2D(static_cast<float>(width()), static_cast<float>(height())));
        // Pixels to a metre where it looks at.
        lines_->setUniformValue("metre", static_cast<float>(height() / (0.54 * stand_.camera().distance)));
        line_array_.bind();
        glDrawArraysInstanced(GL_TRIANGLE_STRIP, 0, 4, line_count_);
        line_array_.release();
        lines_->release();
        glDisable(GL_DEPTH_TEST);
    }

  private:
    static std::unique_ptr<QOpenGLShaderProgram> program(const char* vertex, const char* fragment) {
        auto made = std::make_unique<QOpenGLShaderProgram>();
        made->addShaderFromSourceCode(QOpenGLShader::Vertex, vertex);
        made->addShaderFromSourceCode(QOpenGLShader::Fragment, fragment);
        made->link();
        return made;
    }
    void upload_surfaces(const Scene& scene) {
        revision_ = scene.revision;
        vertices_.bind();
        corners_.bind();
        // The coarse corners lie behind the fine ones in one buffer.
        const auto& coarse = scene.coarse;
        const auto fine_bytes = static_cast<int>(scene.corners.size() * sizeof(Corner)),
                   coarse_bytes = static_cast<int>(coarse.size() * sizeof(Corner));
        corners_.allocate(fine_bytes + coarse_bytes);
        corners_.write(0, scene.corners.data(), fine_bytes);
        corners_.write(fine_bytes, coarse.data(), coarse_bytes);
        count_ = static_cast<int>(scene.corners.size());
        coarse_count_ = static_cast<int>(coarse.size());
        constexpr std::array<int, 4> sizes{3, 3, 3, 1};
        std::size_t start = 0;
        for (GLuint i = 0; i < 4; ++i) {
            glEnableVertexAttribArray(i);
            glVertexAttribPointer(i, sizes[i], GL_FLOAT, GL_FALSE, sizeof(Corner),
                                  // NOLINTNEXTLINE(performance-no-int-to-ptr): OpenGL takes offsets so
                                  reinterpret_cast<const void*>(start * sizeof(float)));
            start += static_cast<std::size_t>(sizes[i]);
        }
        vertices_.release();
    }
    void upload() {
        fresh_ = false;
        const auto& scene = stand_.scene();
        if (scene.revision == 0 || scene.revision != revision_) upload_surfaces(scene);
        std::vector<float> pieces;
        for (const auto& line : scene.lines) {
            for (std::size_t i = 0; i + 1 < line.points.size(); ++i) {
                for (const auto& p : {line.points[i], line.points[i + 1]})
                    for (int c = 0; c < 3; ++c) pieces.push_back(static_cast<float>(p[c]));
                pieces.insert(pieces.end(), {line.colour.redF(), line.colour.greenF(), line.colour.blueF(),
                                             static_cast<float>(line.width), line.dashed ? 1.0F : 0.0F});
            }
        }
        constexpr int kEach = 11;
        line_array_.bind();
        strip_.bind();
        glEnableVertexAttribArray(0);
        glVertexAttribPointer(0, 2, GL_FLOAT, GL_FALSE, 0, nullptr);
        line_pieces_.bind();
        line_pieces_.allocate(pieces.data(), static_cast<int>(pieces.size() * sizeof(float)));
        line_count_ = static_cast<int>(pieces.size()) / kEach;
        for (GLuint i = 1; i < 5; ++i) {
            glEnableVertexAttribArray(i);
            glVertexAttribPointer(i, i == 4 ? 2 : 3, GL_FLOAT, GL_FALSE, kEach * sizeof(float),
                                  // NOLINTNEXTLINE(performance-no-int-to-ptr)
                                  reinterpret_cast<const void*>((i - 1) * 3 * sizeof(float)));
            glVertexAttribDivisor(i, 1);
        }
        line_array_.release();
        soft_.reset();
        if (scene.shadow.empty()) return;
        const Point2 low = low_corner(scene.shadow), size = high_corner(scene.shadow) - low;
        const double pad = 0.18 * size.maxCoeff();
        box_ = QRectF(low.x() - pad, low.y() - pad, size.x() + 2 * pad, size.y() + 2 * pad);
        soft_ = std::make_unique<QOpenGLTexture>(soft_shadow(scene.shadow, box_),
                                                 QOpenGLTexture::DontGenerateMipMaps);
        soft_->setMinMagFilters(QOpenGLTexture::Linear, QOpenGLTexture::Linear);
        soft_->setWrapMode(QOpenGLTexture::ClampToEdge);
    }

    Stand& stand_;
    std::unique_ptr<QOpenGLShaderProgram> surface_, shadow_, lines_;
    std::unique_ptr<QOpenGLTexture> soft_;
    QOpenGLVertexArrayObject vertices_, quad_array_, line_array_;
    QOpenGLBuffer corners_, quad_, strip_, line_pieces_;
    QRectF box_;
    int count_ = 0, coarse_count_ = 0, line_count_ = 0;
    std::uint64_t revision_ = 0;  ///< of the surfaces that were uploaded
    bool fresh_ = true;
};

}  // namespace

std::unique_ptr<Canvas> make_gl_canvas(Stand& stand) {
    return std::make_unique<GlCanvas>(stand);
}

}  // namespace jig::app
