using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Fehler.Core.Operation;

namespace Fehler.Ui.Tests;

/// <summary>The real service as a process of its own on a real SQLite file, so that it can be killed and started again.</summary>
public sealed class RunningApp : IDisposable
{
    /// <summary>The demo plant brought in once; each application under test starts from a copy of the file.</summary>
    private static readonly Lazy<string> Ready = new(BroughtIn);

    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-ui").FullName;
    private Process? _process;

    public RunningApp()
        : this(Ready.Value) { }

    private RunningApp(string? from)
    {
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
        start.Environment["Fehler__Demo"] = "true";
        start.Environment["Fehler__DemoFolder"] = Path.Combine(Root, "demo");
        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, _) => { };
        _process.ErrorDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
        using var http = new HttpClient();
        for (var i = 0; i < 300; i++)
        {
            try
            {
                if (http.GetAsync(new Uri(Address + "/api/circuits")).GetAwaiter().GetResult().IsSuccessStatusCode)
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
        using var first = new RunningApp(from: null);
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
