#include "core/job/job_file.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>
#include <zip.h>

#include <cerrno>
#include <cstring>
#include <filesystem>

#include "core/science/mesh/stl.hpp"

namespace jig {
namespace {

constexpr std::uint64_t kLargest = 1ull << 30, kSwell = 300;
constexpr std::size_t kMostFiles = 100;

[[noreturn]] void damaged(const std::string& where, const std::string& what) {
    throw InputError(
        where, what,
        "take the last good copy, which ends in ~, or an older save; this file has not been touched");
}

struct Archive {
    zip_source_t* source = nullptr;
    zip_t* zip = nullptr;
    Archive() = default;
    Archive(const Archive&) = delete;
    Archive& operator=(const Archive&) = delete;
    ~Archive() {
        if (zip != nullptr) zip_discard(zip);
        if (source != nullptr) zip_source_free(source);
    }
};

void add_file(zip_t* zip, const std::string& name, const std::string& bytes) {
    auto* source = zip_source_buffer(zip, bytes.data(), bytes.size(), 0);
    const auto index = zip_file_add(zip, name.c_str(), source, ZIP_FL_ENC_UTF_8 | ZIP_FL_OVERWRITE);
    if (index < 0) {
        zip_source_free(source);
        throw std::runtime_error("zip: " + std::string(zip_strerror(zip)));
    }
    // A fixed date keeps equal jobs equal files.
    zip_file_set_mtime(zip, static_cast<zip_uint64_t>(index), 946684800, 0);
    zip_set_file_compression(zip, static_cast<zip_uint64_t>(index), ZIP_CM_DEFLATE, 1);
}

std::string read_entry(zip_t* zip, zip_uint64_t index, const zip_stat_t& stat, const std::string& where) {
    std::string out(stat.size, '\0');
    auto* file = zip_fopen_index(zip, index, 0);
    if (file == nullptr) damaged(where, fmt::format("\"{}\" inside it cannot be opened", stat.name));
    std::size_t at = 0;
    while (at < out.size()) {
        const auto got = zip_fread(file, out.data() + at, out.size() - at);
        if (got <= 0) break;
        at += static_cast<std::size_t>(got);
    }
    // Reading to the very end makes libzip check the sum.
    char extra = 0;
    const auto rest = zip_fread(file, &extra, 1);
    zip_fclose(file);
    if (at != out.size() || rest != 0) damaged(where, fmt::format("\"{}\" inside it is damaged", stat.name));
    return out;
}

}  // namespace

std::string pack_job(const Job& job) {
    Archive archive;
    zip_error_t error;
    zip_error_init(&error);
    archive.source = zip_source_buffer_create(nullptr, 0, 0, &error);
    archive.zip = zip_open_from_source(archive.source, ZIP_TRUNCATE, &error);
    if (archive.zip == nullptr) throw std::runtime_error("zip: cannot begin");
    // Opened, the archive owns the source; we want it past the archive's end.
    zip_source_keep(archive.source);
    const auto json = job_to_json(job).dump(1) + "\n";
    add_file(archive.zip, "job.json", json);
    for (const auto& a : job.attachments) {
        if (a.bytes) add_file(archive.zip, "attached/" + a.name, *a.bytes);
    }
    if (zip_close(archive.zip) != 0)
        throw std::runtime_error("zip: " + std::string(zip_strerror(archive.zip)));
    archive.zip = nullptr;
    zip_stat_t stat;
    zip_source_stat(archive.source, &stat);
    std::string out(stat.size, '\0');
    zip_source_open(archive.source);
    zip_source_read(archive.source, out.data(), out.size());
    zip_source_close(archive.source);
    return out;
}

Job unpack_job(const std::string& bytes, const std::string& where) {
    Archive archive;
    zip_error_t error;
    zip_error_init(&error);
    archive.source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &error);
    archive.zip = zip_open_from_source(archive.source, ZIP_RDONLY | ZIP_CHECKCONS, &error);
    if (archive.zip == nullptr) damaged(where, "this is no Jig Shell job, or it is damaged");
    zip_source_keep(archive.source);
    const auto count =
        static_cast<zip_uint64_t>(std::max<zip_int64_t>(0, zip_get_num_entries(archive.zip, 0)));
    if (count > kMostFiles) damaged(where, fmt::format("it holds {} files; a job holds a few", count));
    std::uint64_t whole = 0;
    Json json;
    bool found = false;
    std::vector<Attachment> attachments;
    for (zip_uint64_t i = 0; i < count; ++i) {
        zip_stat_t stat;
        zip_stat_init(&stat);
        if (zip_stat_index(archive.zip, i, 0, &stat) != 0 || (stat.valid & ZIP_STAT_SIZE) == 0)
            damaged(where, "its list of files is damaged");
        whole += stat.size;
        if (whole > kLargest ||
            (stat.size > (1u << 20) && stat.size / std::max<zip_uint64_t>(1, stat.comp_size) > kSwell)) {
            damaged(where, "it would unpack to far more than a job can be");
        }
        const std::string name = stat.name;
        if (name == "job.json") {
            json = parse_json(where + ": job.json", read_entry(archive.zip, i, stat, where));
            found = true;
        } else if (name.rfind("attached/", 0) == 0 && name.size() > 9 &&
                   name.find('/', 9) == std::string::npos) {
            attachments.push_back({name.substr(9), std::make_shared<const std::string>(
                                                       read_entry(archive.zip, i, stat, where))});
        }
    }
    if (!found) damaged(where, "there is no job.json inside, so this is no Jig Shell job");
    auto job = job_from_json(json, where + ": job.json");
    job.attachments = std::move(attachments);
    return job;
}

Job load_job(const std::string& path) {
    const auto bytes = read_file(path, kLargest);
    const auto first = bytes.find_first_not_of(" \t\r\n");
    if (first != std::string::npos && bytes[first] == '{')
        return job_from_json(parse_json(path, bytes), path);
    return unpack_job(bytes, path);
}

void write_atomically(const std::string& bytes, const std::string& named) {
    namespace fs = std::filesystem;
    std::error_code none;
    // A link stays a link: what it points to is what is written.
    const auto real = fs::is_symlink(named, none) ? fs::canonical(named, none) : fs::path();
    const std::string path = real.empty() ? named : real.string();
    const auto old = fs::status(path, none);
    constexpr auto kWritable = fs::perms::owner_write | fs::perms::group_write | fs::perms::others_write;
    const bool there = fs::is_regular_file(old);
    if (there && (old.permissions() & kWritable) == fs::perms::none)
        throw InputError(path, "the file is read-only",
                         "write under another name, or allow it to be written to first");
    const auto beside = path + ".part";
    const auto fail = [&](const char* what) {
        const std::string reason = std::strerror(errno);
        std::error_code ignored;
        std::filesystem::remove(beside, ignored);
        throw InputError(path, fmt::format("{} ({})", what, reason),
                         "choose a folder that you may write to, with room left on the disk");
    };
    const int file = ::open(beside.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (file < 0) fail("the file cannot be written");
    std::size_t at = 0;
    while (at < bytes.size()) {
        const auto wrote = ::write(file, bytes.data() + at, bytes.size() - at);
        if (wrote < 0) {
            ::close(file);
            fail("the file cannot be written to its end");
        }
        at += static_cast<std::size_t>(wrote);
    }
    if (there) static_cast<void>(::fchmod(file, static_cast<mode_t>(old.permissions())));
    if (::fsync(file) != 0 || ::close(file) != 0) fail("the disk did not take the file");
    if (::rename(beside.c_str(), path.c_str()) != 0) fail("the new file cannot take the old one's place");
    // The folder's own entry has to reach the disk too, or a power cut brings the old name back.
    const auto folder = std::filesystem::absolute(path).parent_path();
    const int dir = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (dir >= 0) {
        ::fsync(dir);
        ::close(dir);
    }
}

void save_job(const Job& job, const std::string& path) {
    const auto bytes = pack_job(job);
    namespace fs = std::filesystem;
    std::error_code none;
    // Beside the name that the maker knows, though it be a link.
    if (fs::exists(path, none)) fs::copy_file(path, path + "~", fs::copy_options::overwrite_existing, none);
    write_atomically(bytes, path);
}

}  // namespace jig
