using OpenQA.Selenium.Chrome;

namespace Fehler.Tools;

/// <summary>The browser that tests, pictures and the stopwatch drive: headless, quiet on the network, with a profile of its own.</summary>
internal static class Chromium
{
    /// <param name="profile">Folder of the profile.</param>
    /// <param name="further">Arguments beside the usual ones.</param>
    public static ChromeOptions Options(string profile, params string[] further)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-dev-shm-usage",
            $"--user-data-dir={profile}"
        );
        options.AddArguments(further);
        return options;
    }

    public static ChromeDriverService Service() => ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
}
