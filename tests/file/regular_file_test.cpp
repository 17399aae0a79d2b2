// Reading of regular files, and refusal of pipes, devices and files that are too long.

#include "file/regular_file.hpp"

#include <gtest/gtest.h>
#include <sys/stat.h>

#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

namespace fs = std::filesystem;

class RegularFile : public testing::InTemporaryFolder {};

TEST_F(RegularFile, IsReadWholeUpToALimit) {
  const fs::path file = write("level.toml", "0123456789");
  EXPECT_EQ(read_regular_file(file, 10).bytes, "0123456789");
  EXPECT_EQ(read_regular_file(file, 10).fault, "");
  EXPECT_EQ(read_regular_file(file, 9).bytes, "");
  EXPECT_EQ(read_regular_file(file, 9).fault, "has 10 bytes; at most 9 are allowed");
  EXPECT_EQ(read_start_of_file(file, 4).bytes, "0123");
  EXPECT_EQ(read_regular_file(write("empty", ""), 10).fault, "");
}

// No program writes to the pipe. A plain open would wait for ever.
TEST_F(RegularFile, IsNoPipeAndNoDevice) {
  const fs::path pipe = folder / "pipe";
  ASSERT_EQ(mkfifo(pipe.c_str(), 0600), 0);
  const fs::path link = folder / "link.csv";
  fs::create_symlink("/dev/zero", link);
  for (const fs::path& file : {pipe, link, fs::path("/dev/zero")}) {
    EXPECT_EQ(read_regular_file(file, 1 << 20).fault, "is not a regular file") << file;
    EXPECT_EQ(read_start_of_file(file, 5).fault, "is not a regular file") << file;
  }
  EXPECT_EQ(read_regular_file(folder, 100).fault, "is a folder, not a file");
}

// A read of address 0 of this process fails.
TEST_F(RegularFile, ThatCannotBeReadIsAFault) {
  EXPECT_EQ(read_regular_file("/proc/self/mem", 100).fault, "cannot be read: Input/output error");
  const FileText gone = read_regular_file(folder / "gone", 100);
  EXPECT_EQ(gone.fault, "is not there");
  EXPECT_TRUE(gone.is_missing);
}

// A sparse file of 3 GB.
TEST_F(RegularFile, OfALineWithoutAnEndOnlyTheStartIsRead) {
  const fs::path file = write("line.csv", "time,");
  fs::resize_file(file, 3'000'000'000);
  EXPECT_EQ(read_start_of_file(file, 5).bytes, "time,");
  EXPECT_EQ(read_regular_file(file, 1 << 20).fault,
            "has 3000000000 bytes; at most 1048576 are allowed");
}

}  // namespace
}  // namespace gaze
