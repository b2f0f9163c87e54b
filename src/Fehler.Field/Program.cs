using System.Runtime.InteropServices.JavaScript;
using System.Runtime.Versioning;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Desk;

[assembly: SupportedOSPlatform("browser")]

namespace Fehler.Field;

/// <summary>The core in the browser: what the client's worker calls.</summary>
internal static partial class Program
{
    private static readonly FieldDesk Desk = new(TimeProvider.System);

    private static void Main()
    {
        // The runtime stays; everything is asked through the exports.
    }

    /// <summary>Brings a circuit with its open jobs, as the service gave it.</summary>
    /// <returns>Empty; the reason when it cannot be used.</returns>
    [JSExport]
    internal static string BringCircuit(string package) => Brought<FieldPackage>(package, Desk.Bring);

    /// <summary>Brings a job as the service now has it.</summary>
    /// <returns>Empty; the reason when it cannot be used.</returns>
    [JSExport]
    internal static string BringJob(string job) => Brought<FieldJob>(job, Desk.Bring);

    /// <summary>Forgets a circuit and its jobs.</summary>
    [JSExport]
    internal static void Forget(string circuit)
    {
        if (Guid.TryParse(circuit, out var id))
        {
            Desk.Forget(id);
        }
    }

    /// <summary>Answers a request as the service would: the status in three digits, then the body.</summary>
    [JSExport]
    internal static string Answer(string method, string target, string body)
    {
        try
        {
            var (status, json) = Desk.Answer(method, target, body);
            return $"{status}{json}";
        }
        catch (Exception e)
        {
            Console.Error.WriteLine(e);
            return """500{"title":"Error on this device","detail":"Something went wrong on this device. What was recorded is kept.","status":500}""";
        }
    }

    private static string Brought<T>(string json, Action<T> bring)
    {
        try
        {
            bring(JsonSerializer.Deserialize<T>(json, JournalJson.Options) ?? throw new JsonException("null is not enough."));
            return "";
        }
        catch (Exception e) when (e is JsonException or RefusedException)
        {
            return e.Message;
        }
    }
}
