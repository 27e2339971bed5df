// The browser is Debian's; nothing is downloaded at install.
module.exports = { skipDownload: true };
