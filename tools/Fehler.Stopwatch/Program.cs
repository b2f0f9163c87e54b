using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Tools;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

// What a person waits for in the browser, against a running demo: fehler-stopwatch ADDRESS [circuit...]
// First view: nothing cached, until the register's rows stand. Reading to next: from Enter until the next test stands, server and drawing included.
var address = args[0].TrimEnd('/');
string[] tags = args.Length > 1 ? args[1..] : ["IN-101", "GC-501", "KX-421"];
const int views = 10,
    readings = 8;
using var http = new HttpClient { BaseAddress = new Uri(address) };
using var service = Chromium.Service();
using var driver = new ChromeDriver(
    service,
    Chromium.Options(Directory.CreateTempSubdirectory("stopwatch").FullName, "--window-size=1280,800")
);
driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(30);
driver.ExecuteCdpCommand("Network.enable", []);

const string card = "section[aria-label=\"Next test\"][aria-busy=\"false\"]";
driver.ExecuteCdpCommand("Network.setCacheDisabled", new() { ["cacheDisabled"] = true });
Say("first view, nothing cached", Enumerable.Range(0, views).Select(_ => Opened("/", "tbody tr")));
driver.ExecuteCdpCommand("Network.setCacheDisabled", new() { ["cacheDisabled"] = false });
Say("register again", Enumerable.Range(0, views).Select(_ => Opened("/", "tbody tr")));
foreach (var tag in tags)
{
    var job = await OpenJobAsync(tag);
    Say($"{tag}: its job", Enumerable.Range(0, 5).Select(_ => Opened($"/jobs/{job}", card)));
    Say($"{tag}: reading to next", Enumerable.Range(0, 5 * readings).Select(_ => Recorded()).OfType<double>().Take(readings));
}

double Opened(string path, string css)
{
    driver.Navigate().GoToUrl("about:blank");
    driver.Navigate().GoToUrl(address + path);
    return Milliseconds(
        """
        const [css, done] = arguments
        const look = () => document.querySelector(css) ? done(performance.now()) : requestAnimationFrame(look)
        look()
        """,
        css
    );
}

// Types what a good circuit shows, so that nothing is asked back. Null where the next test is none: a look is answered, anything else passed over.
double? Recorded()
{
    var field = driver.FindElements(By.CssSelector("input[aria-label='What the meter shows']")).FirstOrDefault();
    var good = driver.FindElements(By.CssSelector(".good strong")).FirstOrDefault()?.Text ?? "";
    var number = new string([.. good.SkipWhile(c => !char.IsAsciiDigit(c)).TakeWhile(c => char.IsAsciiDigit(c) || c == '.')]);
    if (field is null || number.Length == 0)
    {
        if (driver.FindElements(By.CssSelector(".touches button")).FirstOrDefault() is { } answer)
        {
            answer.Click();
        }
        else
        {
            driver.FindElement(By.TagName("body")).SendKeys("n");
        }

        Thread.Sleep(1500);
        return null;
    }

    driver.ExecuteScript(
        """
        const count = () => [...document.querySelectorAll('[role=tab]')].map(t => t.innerText).find(t => t.startsWith('Journal'))
        const before = count()
        window.waited = undefined
        const pressed = e => {
          if (e.key !== 'Enter') return
          document.removeEventListener('keydown', pressed, true)
          const begun = performance.now()
          let asked = false
          const look = () => {
            const sure = [...document.querySelectorAll('.question button')].find(b => b.innerText.startsWith('It shows that'))
            if (sure && !asked) sure.click(), (asked = true)
            if (count() !== before && document.querySelector(arguments[0])) window.waited = asked ? -1 : performance.now() - begun
            else requestAnimationFrame(look)
          }
          look()
        }
        document.addEventListener('keydown', pressed, true)
        """,
        card
    );
    field.SendKeys(number + Keys.Enter);
    var waited = Milliseconds(
        "const done = arguments[1]; const look = () => window.waited ? done(window.waited) : setTimeout(look, 20); look()",
        card
    );
    // Asked back: that a person answers is not the program's time.
    return waited > 0 ? waited : null;
}

double Milliseconds(string script, string css) => Convert.ToDouble(driver.ExecuteAsyncScript(script, css), CultureInfo.InvariantCulture);

async Task<string> OpenJobAsync(string tag)
{
    var found = await http.GetFromJsonAsync<JsonElement>(new Uri($"/api/circuits?search={tag}", UriKind.Relative));
    var circuit = found.GetProperty("items")[0].GetProperty("id").GetString();
    var call = await http.GetFromJsonAsync<JsonElement>(new Uri($"/api/circuits/{circuit}/call", UriKind.Relative));
    var symptom = call.GetProperty("groups")[0].GetProperty("symptoms")[0].GetProperty("id").GetString();
    var opened = await SentAsync(
        "/api/jobs",
        new
        {
            circuitId = circuit,
            complaint = "",
            symptoms = new[] { symptom },
        }
    );
    var job = opened.GetProperty("id").GetString()!;
    await SentAsync($"/api/jobs/{job}/entries", new { type = "liveWorkAcknowledged", id = Guid.NewGuid() });
    return job;
}

async Task<JsonElement> SentAsync(string path, object body)
{
    using var answer = await http.PostAsJsonAsync(new Uri(path, UriKind.Relative), body);
    answer.EnsureSuccessStatusCode();
    return await answer.Content.ReadFromJsonAsync<JsonElement>();
}

static void Say(string what, IEnumerable<double> taken)
{
    var sorted = taken.Order().ToList();
    Console.WriteLine(
        sorted.Count == 0
            ? $"{what}: nothing to time"
            : FormattableString.Invariant($"{what}: median {sorted[sorted.Count / 2]:0} ms, worst {sorted[^1]:0} ms, {sorted.Count} times")
    );
}
