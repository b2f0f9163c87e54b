using System.Text.Json;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>
/// WCAG 2.2 AA as far as a program can tell: axe-core on every view, light and dark; and no sideways scrolling on a phone.
/// </summary>
public sealed class AccessibilityTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public AccessibilityTests() => _screen = new Screen(_app.Address);

    [Theory]
    [InlineData("light")]
    [InlineData("dark")]
    public void Every_view_passes(string theme)
    {
        var axe = File.ReadAllText(Path.Combine(RunningApp.Root, "src", "client", "node_modules", "axe-core", "axe.min.js"));
        _screen.Open("/");
        _screen.Driver.ExecuteScript($"localStorage.setItem('fehler.theme', '{theme}')");
        foreach (var (view, path, ready) in Views())
        {
            _screen.Open(path);
            _screen.See(ready);
            Thread.Sleep(400);
            _screen.Driver.ExecuteScript(axe);
            var json = (string)
                _screen.Driver.ExecuteAsyncScript(
                    """
                    const done = arguments[arguments.length - 1];
                    axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] })
                      .then(r => done(JSON.stringify(r.violations.map(v => v.id + ': '
                        + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160) + ' ' + n.failureSummary).join(' | ')))));
                    """
                )!;
            JsonSerializer.Deserialize<string[]>(json)!.ShouldBeEmpty($"{view}, {theme}");
        }
    }

    [Fact]
    public void Nothing_scrolls_sideways_on_a_phone()
    {
        _screen.Resize(390, 844);
        foreach (var (view, path, ready) in Views())
        {
            _screen.Open(path);
            _screen.See(ready);
            var over = (long)_screen.Driver.ExecuteScript("return document.documentElement.scrollWidth - window.innerWidth")!;
            over.ShouldBeLessThanOrEqualTo(0, view);
        }
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    private IEnumerable<(string View, string Path, string Ready)> Views()
    {
        using var http = new HttpClient();
        using var json = JsonDocument.Parse(http.GetStringAsync(new Uri(_app.Address + "/api/circuits?take=200")).GetAwaiter().GetResult());
        var open = json.RootElement.GetProperty("items").EnumerateArray().First(c => c.GetProperty("tag").GetString() == "CH-110");
        var job = open.GetProperty("openJob").GetString();
        return
        [
            ("register", "/", "Infeed chain"),
            ("circuit", $"/circuits/{open.GetProperty("id").GetString()}", "Control circuit"),
            ("job", $"/jobs/{job}", "First: agree to live tests"),
            ("close-out", $"/jobs/{job}/close-out", "Function test"),
            ("logbook", "/logbook", "Complaint"),
            ("report", $"/jobs/{job}/report", "Reported"),
            ("bench check", $"/circuits/{open.GetProperty("id").GetString()}?tab=bench", "Every component by itself"),
            ("set-up", "/set-up", "Set up"),
            ("sums", "/sums/cable-holds-coil", "Largest capacitance"),
            ("terminals", "/set-up/terminals", "at rest"),
            ("plan", "/plan", "Clean the panel"),
            ("intervals", "/plan/intervals", "Took here"),
            ("shutdowns", "/shutdowns", "Pack it"),
            ("spares", "/spares", "On the shelf"),
            ("insight", "/insight", "What comes back"),
            ("trends", $"/circuits/{open.GetProperty("id").GetString()}?tab=trends", "Nothing is followed here yet"),
            ("curve", "/sums/trip-time", "Soonest by its class"),
            ("practice", "/practice", "Word of the class"),
            ("people", "/people", "Tablets of the crew"),
            ("you", "/you", "there is no password to change"),
        ];
    }
}
