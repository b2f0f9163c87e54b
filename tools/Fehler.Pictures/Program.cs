using System.Globalization;
using Fehler.Tools;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

// Takes pictures of a running demo: fehler-pictures ADDRESS FOLDER [name=path[@WIDTHxHEIGHT][!dark|!ladder][#click css;css...]]...
// @FILE stands for the lines of a file. A path may name a circuit or the open job by tag: {circuit:CH-110}, {job:CH-110}.
var address = args[0].TrimEnd('/');
var folder = args[1];
using var http = new HttpClient { BaseAddress = new Uri(address) };
using var service = Chromium.Service();
using var driver = new ChromeDriver(service, Chromium.Options(Directory.CreateTempSubdirectory("pictures").FullName, "--hide-scrollbars"));
foreach (var shot in args.Skip(2).SelectMany(a => a.StartsWith('@') ? File.ReadLines(a[1..]) : [a]))
{
    var (name, rest) = Split(shot, '=');
    var (path, clicks) = Split(rest, '#');
    (path, var flag) = Split(path, '!');
    var (page, size) = Split(path, '@');
    var (width, height) = size.Length > 0 ? Split(size, 'x') : ("1280", "800");
    driver.ExecuteCdpCommand(
        "Emulation.setDeviceMetricsOverride",
        new Dictionary<string, object?>
        {
            ["width"] = int.Parse(width, CultureInfo.InvariantCulture),
            ["height"] = int.Parse(height, CultureInfo.InvariantCulture),
            ["deviceScaleFactor"] = 1,
            ["mobile"] = false,
        }
    );
    driver.Navigate().GoToUrl(address + "/");
    driver.ExecuteScript(
        $"localStorage.setItem('fehler.theme', '{(flag == "dark" ? "dark" : "light")}'); localStorage.setItem('fehler.who', 'M. "
            + $"Okonjo'); localStorage.setItem('fehler.school', '{(flag == "ladder" ? "ladder" : "iec")}')"
    );
    driver.Navigate().GoToUrl(address + await Resolve(page));
    Thread.Sleep(2500);
    foreach (var css in clicks.Split(';', StringSplitOptions.RemoveEmptyEntries))
    {
        var element = driver.FindElement(By.CssSelector(css));
        driver.ExecuteScript(
            "arguments[0].scrollIntoView({block: 'center'}); arguments[0].dispatchEvent(new MouseEvent('click', {bubbles: true}))",
            element
        );
        Thread.Sleep(900);
    }

    Directory.CreateDirectory(folder);
    driver.GetScreenshot().SaveAsFile(Path.Combine(folder, name + ".png"));
    Console.WriteLine($"{name}.png");
}

static (string, string) Split(string text, char at)
{
    var i = text.IndexOf(at, StringComparison.Ordinal);
    return i < 0 ? (text, "") : (text[..i], text[(i + 1)..]);
}

async Task<string> Resolve(string path)
{
    var open = path.IndexOf('{', StringComparison.Ordinal);
    if (open < 0)
    {
        return path;
    }

    var close = path.IndexOf('}', StringComparison.Ordinal);
    var (what, tag) = Split(path[(open + 1)..close], ':');
    using var json = System.Text.Json.JsonDocument.Parse(await http.GetStringAsync(new Uri(http.BaseAddress!, "/api/circuits?take=200")));
    var circuit = json.RootElement.GetProperty("items").EnumerateArray().First(c => c.GetProperty("tag").GetString() == tag);
    return path[..open] + circuit.GetProperty(what == "job" ? "openJob" : "id").GetString() + path[(close + 1)..];
}
