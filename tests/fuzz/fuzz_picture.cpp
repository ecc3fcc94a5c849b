// SPDX-License-Identifier: GPL-3.0-or-later
// Arbitrary bytes as a photograph: reading ends in pixels or in an InputError with a sentence, never
// otherwise. Run by tools/fuzz picture with libFuzzer. Pictures that say they are large are left to the
// reader's own limit.

#include "core/base/input_error.h"
#include "store/picture/photograph_file.h"
#include "words/words.h"

#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    try {
        const ibuki::PictureHead head = ibuki::pictureHead(bytes, "fuzz");
        if (head.width * head.height > 250'000) return 0; // the decoder's time, not its mistakes
        const ibuki::RgbPicture read = ibuki::photographFrom(bytes, "fuzz");
        const auto pixels = static_cast<std::size_t>(read.width) * static_cast<std::size_t>(read.height);
        if (read.rgb.size() != 3 * pixels) std::abort();
    } catch (const ibuki::InputError& error) {
        if (ibuki::words::sentence(error).empty()) std::abort();
    }
    return 0;
}
