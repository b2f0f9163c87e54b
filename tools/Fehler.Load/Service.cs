using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Fehler.Load;

/// <summary>The published service as a process of its own on a file of its own.</summary>
internal sealed partial class Service : IDisposable
{
    private readonly string _app;
    private readonly Dictionary<string, string> _settings;
    private Process? _process;
    private string _said = "";

    /// <param name="app">Folder of the published service.</param>
    /// <param name="database">Its file.</param>
    /// <param name="settings">Further settings.</param>
    public Service(string app, string database, Dictionary<string, string> settings)
    {
        (_app, _settings) = (app, settings);
        _settings["Fehler__Database"] = database;
        _settings["Fehler__BackupFolder"] = "none";
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        Http = new HttpClient(new SocketsHttpHandler { MaxConnectionsPerServer = 200 })
        {
            BaseAddress = new Uri($"http://127.0.0.1:{((IPEndPoint)free.LocalEndpoint).Port}"),
            Timeout = TimeSpan.FromSeconds(60),
        };
        free.Stop();
    }

    public HttpClient Http { get; }

    /// <summary>Memory of the process, MB.</summary>
    public double Megabytes
    {
        get
        {
            _process!.Refresh();
            return _process.WorkingSet64 / 1e6;
        }
    }

    /// <summary>The code of the first administrator, from the console.</summary>
    public string Code => CodeOnConsole().Match(_said).Groups[1].Value;

    [GeneratedRegex("code ([A-Z0-9-]{14})")]
    private static partial Regex CodeOnConsole();

    /// <summary>Starts it and waits until it is ready.</summary>
    public async Task StartAsync()
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(_app, "Fehler.Web.dll")])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["ASPNETCORE_URLS"] = Http.BaseAddress!.ToString().TrimEnd('/');
        start.Environment["ASPNETCORE_CONTENTROOT"] = _app;
        foreach (var (name, value) in _settings)
        {
            start.Environment[name] = value;
        }

        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, line) => _said += line.Data + "\n";
        _process.ErrorDataReceived += (_, line) => _said += line.Data + "\n";
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
        for (var tries = 0; ; tries++)
        {
            try
            {
                if ((await Http.GetAsync(new Uri("/api/health/ready", UriKind.Relative))).IsSuccessStatusCode)
                {
                    return;
                }
            }
            catch (HttpRequestException) when (tries < 1200 && !_process.HasExited)
            {
                // Not up yet.
            }

            if (_process.HasExited)
            {
                throw new InvalidOperationException($"The service ended: {_said}");
            }

            await Task.Delay(50);
        }
    }

    /// <summary>Ends it at once, as a power cut would.</summary>
    public void Kill()
    {
        _process!.Kill();
        _process.WaitForExit();
        _process.Dispose();
        _process = null;
    }

    /// <summary>Makes the first administrator and a token for each of so many people.</summary>
    public async Task<IReadOnlyList<string>> PeopleAsync(int number)
    {
        const string word = "fifty people at their panels";
        await PostAsync(
            Http,
            "/api/session/first",
            new
            {
                code = Code,
                name = "Load",
                password = word,
            }
        );
        var tokens = new List<string>();
        for (var i = 1; i <= number; i++)
        {
            var name = $"Person {i}";
            string[] rights = ["jobs"];
            await PostAsync(
                Http,
                "/api/people",
                new
                {
                    name,
                    password = word,
                    rights,
                }
            );
            using var person = new HttpClient(new SocketsHttpHandler()) { BaseAddress = Http.BaseAddress };
            await PostAsync(person, "/api/session", new { name, password = word });
            var made = await PostAsync(person, "/api/tokens", new { name = "load", rights });
            tokens.Add((await made.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("key").GetString()!);
        }

        return tokens;
    }

    /// <summary>As a browser does: asks who is signed in, and sends back what the cookie says.</summary>
    private static async Task<HttpResponseMessage> PostAsync(HttpClient http, string path, object body)
    {
        const string name = "XSRF-TOKEN=";
        var session = await http.GetAsync(new Uri("/api/session", UriKind.Relative));
        var cookie = session.Headers.GetValues("Set-Cookie").First(c => c.StartsWith(name, StringComparison.Ordinal));
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("X-XSRF-TOKEN", Uri.UnescapeDataString(cookie[name.Length..cookie.IndexOf(';', StringComparison.Ordinal)]));
        var answer = await http.SendAsync(request);
        return answer.EnsureSuccessStatusCode();
    }

    public void Dispose()
    {
        Http.Dispose();
        if (_process is { HasExited: false })
        {
            Kill();
        }
    }
}
