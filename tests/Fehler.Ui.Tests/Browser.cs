using System.Collections.Concurrent;
using Fehler.Tools;
using OpenQA.Selenium.Chrome;

namespace Fehler.Ui.Tests;

/// <summary>
/// A headless Chromium. Starting one takes seconds, so it is handed from test to test; each test's application listens on a port of its
/// own,
/// and with it has a storage of its own in the browser.
/// </summary>
internal sealed class Browser
{
    private static readonly ConcurrentBag<Browser> Idle = [];

    private readonly string _profile = Directory.CreateTempSubdirectory("chromium").FullName;
    private readonly ChromeDriverService _service;

    static Browser() =>
        AppDomain.CurrentDomain.ProcessExit += (_, _) =>
        {
            while (Idle.TryTake(out var browser))
            {
                browser.Quit();
            }
        };

    private Browser()
    {
        _service = Chromium.Service();
        Driver = new ChromeDriver(_service, Chromium.Options(_profile));
    }

    public ChromeDriver Driver { get; }

    public static Browser Take() => Idle.TryTake(out var browser) ? browser : new Browser();

    /// <summary>For the next test; one that no longer answers or holds windows open is ended instead.</summary>
    public void GiveBack()
    {
        try
        {
            if (Driver.WindowHandles.Count == 1)
            {
                Driver.ExecuteCdpCommand("Network.disable", []);
                Driver.ExecuteCdpCommand("Emulation.setEmulatedMedia", new Dictionary<string, object?> { ["media"] = "" });
                // Browsers keep cookies by host, whatever the port: the next service is another one.
                Driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
                Driver.Navigate().GoToUrl("about:blank");
                Idle.Add(this);
                return;
            }
        }
        catch (OpenQA.Selenium.WebDriverException)
        {
            // It ends below.
        }

        Quit();
    }

    private void Quit()
    {
        Driver.Quit();
        Driver.Dispose();
        _service.Dispose();
        try
        {
            Directory.Delete(_profile, recursive: true);
        }
        catch (IOException)
        {
            // Chromium may still be writing its last file; the folder is temporary.
        }
    }
}
