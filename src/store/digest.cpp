// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/digest.h"

#include <array>
#include <fmt/format.h>
#include <openssl/evp.h>

namespace ibuki {

std::string sha256(std::string_view bytes) {
    std::array<unsigned char, EVP_MAX_MD_SIZE> digest{};
    unsigned int size = 0;
    EVP_Digest(bytes.data(), bytes.size(), digest.data(), &size, EVP_sha256(), nullptr);
    std::string text;
    for (unsigned int i = 0; i < size; ++i) text += fmt::format("{:02x}", digest[i]);
    return text;
}

} // namespace ibuki
