// One reader under a fuzzer: whatever the bytes are, it ends in a value or in words. JIG_FORMAT names the
// reader.
#include <cstddef>
#include <cstdint>
#include <string_view>

#include "core/base/error.hpp"
#include "core/base/progress.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/polygon_files.hpp"
#include "core/science/mesh/stl.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    jig::Progress quiet;
    try {
        JIG_READ;
    } catch (const jig::InputError&) {
        // Said in words, as it should be.
    }
    return 0;
}
