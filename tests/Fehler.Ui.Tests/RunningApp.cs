using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;
using Fehler.Core.Operation;

namespace Fehler.Ui.Tests;

/// <summary>The real service as a process of its own on a real SQLite file, so that it can be killed and started again.</summary>
public sealed class RunningApp : IDisposable
{
    /// <summary>The demo plant brought in once; each application under test starts from a copy of the file.</summary>
    private static readonly Lazy<string> Ready = new(BroughtIn);

    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-ui").FullName;
    private readonly bool _isDemo;
    private Process? _process;
    private string _said = "";

    /// <summary>The code of the first administrator, from the console.</summary>
    public string Code => Regex.Match(_said, "code ([A-Z0-9-]{14})").Groups[1].Value;

    public RunningApp()
        : this(Ready.Value, isDemo: true) { }

    /// <param name="isDemo">Whoever is on the machine is let in; else people sign in.</param>
    public RunningApp(bool isDemo)
        : this(Ready.Value, isDemo) { }

    private RunningApp(string? from, bool isDemo)
    {
        _isDemo = isDemo;
        foreach (var file in from is null ? [] : Directory.GetFiles(from))
        {
            File.Copy(file, Path.Combine(_folder, Path.GetFileName(file)));
        }

        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        Address = $"http://127.0.0.1:{((IPEndPoint)free.LocalEndpoint).Port}";
        free.Stop();
        Start();
    }

    public string Address { get; }

    public static string Root { get; } = FindRoot();

    public void Start()
    {
        var web = Path.Combine(Root, "src", "Fehler.Web");
        var build = new DirectoryInfo(AppContext.BaseDirectory).Parent!.Name;
        var start = new ProcessStartInfo("dotnet", [Path.Combine(web, "bin", build, "net10.0", "Fehler.Web.dll")])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["ASPNETCORE_URLS"] = Address;
        start.Environment["ASPNETCORE_CONTENTROOT"] = web;
        start.Environment["Fehler__Database"] = Path.Combine(_folder, "ui.db");
        start.Environment["Fehler__JudgeJobs"] = "false";
        start.Environment["Fehler__Demo"] = _isDemo ? "true" : "false";
        start.Environment["Fehler__BackupFolder"] = "none";
        start.Environment["Fehler__SignInsPerMinute"] = "1000";
        start.Environment["Fehler__DemoFolder"] = Path.Combine(Root, "demo");
        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, line) => _said += line.Data + "\n";
        _process.ErrorDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
        using var http = new HttpClient();
        for (var i = 0; i < 300; i++)
        {
            try
            {
                if (http.GetAsync(new Uri(Address + "/api/health/ready")).GetAwaiter().GetResult().IsSuccessStatusCode)
                {
                    return;
                }
            }
            catch (HttpRequestException)
            {
                // Not up yet.
            }

            Thread.Sleep(100);
        }

        throw new InvalidOperationException("The service did not start.");
    }

    /// <summary>Ends the process at once, without a chance to tidy up.</summary>
    public void Kill()
    {
        _process!.Kill();
        _process.WaitForExit();
    }

    public void Dispose()
    {
        if (_process is { HasExited: false })
        {
            Kill();
        }

        _process?.Dispose();
        Directory.Delete(_folder, recursive: true);
    }

    private static string BroughtIn()
    {
        var folder = Directory.CreateTempSubdirectory("fehler-ui-ready");
        AppDomain.CurrentDomain.ProcessExit += (_, _) => folder.Delete(recursive: true);
        using var first = new RunningApp(from: null, isDemo: true);
        first.Kill();
        foreach (var file in Directory.GetFiles(first._folder, "ui.db*").Where(f => !f.EndsWith(".lock", StringComparison.Ordinal)))
        {
            File.Copy(file, Path.Combine(folder.FullName, Path.GetFileName(file)));
        }

        return folder.FullName;
    }

    private static string FindRoot()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Fehler.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
