# Writes OUT, a C++ file that holds every file of DIR (matching GLOB) as a text, for bold::embedded::NAME().
file(GLOB_RECURSE files RELATIVE ${DIR} ${DIR}/${GLOB})
list(SORT files)
set(body "")
foreach(f IN LISTS files)
  file(READ ${DIR}/${f} text)
  string(APPEND body "    {R\"bold(${f})bold\", R\"bold(${text})bold\"},\n")
endforeach()
file(WRITE ${OUT}.new "#include \"core/base/embedded.h\"

namespace bold::embedded {
namespace {
const File kFiles[] = {
    {\"\", \"\"},  // never empty
${body}};
}  // namespace
std::span<const File> ${NAME}() { return std::span<const File>(kFiles).subspan(1); }
}  // namespace bold::embedded
")
file(COPY_FILE ${OUT}.new ${OUT} ONLY_IF_DIFFERENT)
