// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A disk under the database that can be cut off its power or run full. While one lives, every database of
// this program stands on it. After a cut only what was synced is certain: of the writes since then the first
// few are on the disk, at random, and nothing written later.

#include "core/base/random.h"

#include <sqlite3.h>

#include <cstdint>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <map>
#include <string>
#include <vector>

namespace ibuki::story {

class FaultyDisk {
public:
    FaultyDisk() {
        current() = this;
        real_ = sqlite3_vfs_find(nullptr);
        vfs_ = *real_;
        vfs_.zName = "faulty";
        vfs_.szOsFile = static_cast<int>(sizeof(File)) + real_->szOsFile;
        vfs_.xOpen = open;
        vfs_.xDelete = remove;
        sqlite3_vfs_register(&vfs_, 1);
    }
    ~FaultyDisk() {
        sqlite3_vfs_register(real_, 1);
        sqlite3_vfs_unregister(&vfs_);
        current() = nullptr;
    }
    FaultyDisk(const FaultyDisk&) = delete;
    FaultyDisk& operator=(const FaultyDisk&) = delete;

    void cutPower() { dead_ = true; }
    /// Once everything that was open is gone: the files as the disk has them. Power is on again then.
    void settle(Random& random) {
        for (auto& [path, writes] : unsynced_) {
            const auto kept =
                static_cast<std::size_t>(random.uniform() * static_cast<double>(writes.size() + 1));
            while (writes.size() > kept) {
                putBack(path, writes.back());
                writes.pop_back();
            }
            if (path.ends_with("-wal")) std::filesystem::remove(path.substr(0, path.size() - 4) + "-shm");
        }
        unsynced_.clear();
        dead_ = false;
    }
    /// Bytes by which files may still grow; nothing: without end.
    void leaveRoom(std::optional<std::int64_t> bytes) { room_ = bytes; }

private:
    struct Write {
        std::int64_t offset = 0;
        std::string before;
        std::int64_t size = 0; ///< of the file, before
    };
    struct File {
        sqlite3_file base;
        std::string* path;
        sqlite3_file* real;
    };

    static FaultyDisk*& current() {
        static FaultyDisk* disk = nullptr;
        return disk;
    }
    static sqlite3_file* realOf(sqlite3_file* file) { return reinterpret_cast<File*>(file)->real; }
    static const std::string& pathOf(sqlite3_file* file) { return *reinterpret_cast<File*>(file)->path; }

    static void putBack(const std::string& path, const Write& write) {
        if (!std::filesystem::exists(path)) return;
        if (!write.before.empty()) {
            std::fstream file(path, std::ios::binary | std::ios::in | std::ios::out);
            file.seekp(write.offset);
            file.write(write.before.data(), static_cast<std::streamsize>(write.before.size()));
        }
        std::filesystem::resize_file(path, static_cast<std::uintmax_t>(write.size));
    }

    static int open(sqlite3_vfs* vfs, const char* name, sqlite3_file* file, int flags, int* outFlags) {
        FaultyDisk& disk = *current();
        auto* own = reinterpret_cast<File*>(file);
        own->real = reinterpret_cast<sqlite3_file*>(own + 1);
        own->path = nullptr;
        own->base.pMethods = nullptr;
        std::memset(static_cast<void*>(own->real), 0, static_cast<std::size_t>(disk.real_->szOsFile));
        const int result = disk.real_->xOpen(disk.real_, name, own->real, flags, outFlags);
        (void)vfs;
        if (result != SQLITE_OK) return result;
        own->path = new std::string(name ? name : "");
        own->base.pMethods = &methods();
        return SQLITE_OK;
    }
    static int remove(sqlite3_vfs*, const char* name, int sync) {
        FaultyDisk& disk = *current();
        return disk.dead_ ? SQLITE_IOERR : disk.real_->xDelete(disk.real_, name, sync);
    }
    static int close(sqlite3_file* file) {
        auto* own = reinterpret_cast<File*>(file);
        delete std::exchange(own->path, nullptr);
        return own->real->pMethods->xClose(own->real);
    }
    static int write(sqlite3_file* file, const void* data, int count, sqlite3_int64 offset) {
        FaultyDisk& disk = *current();
        if (disk.dead_) return SQLITE_IOERR_WRITE;
        sqlite3_int64 size = 0;
        realOf(file)->pMethods->xFileSize(realOf(file), &size);
        const std::int64_t grows = std::max<std::int64_t>(0, offset + count - size);
        if (disk.room_ && grows > *disk.room_) return SQLITE_FULL;
        if (disk.room_) *disk.room_ -= grows;
        Write undo{offset, std::string(static_cast<std::size_t>(count), '\0'), size};
        const std::int64_t there = std::clamp<std::int64_t>(size - offset, 0, count);
        undo.before.resize(static_cast<std::size_t>(there));
        if (there > 0)
            realOf(file)->pMethods->xRead(realOf(file), undo.before.data(), static_cast<int>(there), offset);
        disk.unsynced_[pathOf(file)].push_back(std::move(undo));
        return realOf(file)->pMethods->xWrite(realOf(file), data, count, offset);
    }
    static int truncate(sqlite3_file* file, sqlite3_int64 to) {
        FaultyDisk& disk = *current();
        if (disk.dead_) return SQLITE_IOERR_TRUNCATE;
        sqlite3_int64 size = 0;
        realOf(file)->pMethods->xFileSize(realOf(file), &size);
        if (size > to) {
            Write undo{to, std::string(static_cast<std::size_t>(size - to), '\0'), size};
            realOf(file)->pMethods->xRead(realOf(file), undo.before.data(), static_cast<int>(size - to), to);
            disk.unsynced_[pathOf(file)].push_back(std::move(undo));
        }
        return realOf(file)->pMethods->xTruncate(realOf(file), to);
    }
    static int sync(sqlite3_file* file, int flags) {
        FaultyDisk& disk = *current();
        if (disk.dead_) return SQLITE_IOERR_FSYNC;
        disk.unsynced_.erase(pathOf(file));
        return realOf(file)->pMethods->xSync(realOf(file), flags);
    }

    static const sqlite3_io_methods& methods() {
        static const sqlite3_io_methods all = [] {
            sqlite3_io_methods m{};
            m.iVersion = 2;
            m.xClose = close;
            m.xRead = [](sqlite3_file* f, void* to, int n, sqlite3_int64 at) {
                return realOf(f)->pMethods->xRead(realOf(f), to, n, at);
            };
            m.xWrite = write;
            m.xTruncate = truncate;
            m.xSync = sync;
            m.xFileSize = [](sqlite3_file* f, sqlite3_int64* size) {
                return realOf(f)->pMethods->xFileSize(realOf(f), size);
            };
            m.xLock = [](sqlite3_file* f, int l) { return realOf(f)->pMethods->xLock(realOf(f), l); };
            m.xUnlock = [](sqlite3_file* f, int l) { return realOf(f)->pMethods->xUnlock(realOf(f), l); };
            m.xCheckReservedLock = [](sqlite3_file* f, int* out) {
                return realOf(f)->pMethods->xCheckReservedLock(realOf(f), out);
            };
            m.xFileControl = [](sqlite3_file* f, int op, void* p) {
                return realOf(f)->pMethods->xFileControl(realOf(f), op, p);
            };
            m.xSectorSize = [](sqlite3_file* f) { return realOf(f)->pMethods->xSectorSize(realOf(f)); };
            m.xDeviceCharacteristics = [](sqlite3_file* f) {
                return realOf(f)->pMethods->xDeviceCharacteristics(realOf(f));
            };
            m.xShmMap = [](sqlite3_file* f, int page, int size, int extend, void volatile** out) {
                return realOf(f)->pMethods->xShmMap(realOf(f), page, size, extend, out);
            };
            m.xShmLock = [](sqlite3_file* f, int at, int n, int flags) {
                return realOf(f)->pMethods->xShmLock(realOf(f), at, n, flags);
            };
            m.xShmBarrier = [](sqlite3_file* f) { realOf(f)->pMethods->xShmBarrier(realOf(f)); };
            m.xShmUnmap = [](sqlite3_file* f, int gone) {
                return realOf(f)->pMethods->xShmUnmap(realOf(f), gone);
            };
            return m;
        }();
        return all;
    }

    sqlite3_vfs* real_ = nullptr;
    sqlite3_vfs vfs_{};
    bool dead_ = false;
    std::optional<std::int64_t> room_;
    std::map<std::string, std::vector<Write>> unsynced_;
};

} // namespace ibuki::story
