using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fehler.Load;
using Microsoft.Data.Sqlite;

// fehler-load APP DEMO [MINUTES]: so many people at once, each an entry and a proposal every ten seconds, over a large plant.
// fehler-load APP DEMO kills [TIMES]: ended at once again and again while it writes; what was acknowledged is there once.
const int people = 50,
    circuits = 500,
    jobs = 20_000;
var every = TimeSpan.FromSeconds(10);
var (app, demo) = (args[0], args[1]);
var folder = Directory.CreateTempSubdirectory("fehler-load-");
var database = Path.Combine(folder.FullName, "load.db");
try
{
    if (args.ElementAtOrDefault(2) == "kills")
    {
        await Kills(args.Length > 3 ? int.Parse(args[3], CultureInfo.InvariantCulture) : 100);
    }
    else
    {
        await Crew(args.Length > 2 ? double.Parse(args[2], CultureInfo.InvariantCulture) : 10);
    }

    return 0;
}
finally
{
    SqliteConnection.ClearAllPools();
    folder.Delete(recursive: true);
}

async Task Crew(double minutes)
{
    Say($"bringing in the demo plant and growing it");
    await BroughtIn(withHistory: true);
    LargePlant.Grow(database, circuits, jobs);
    using var service = new Service(app, database, new() { ["Fehler__SignInsPerMinute"] = "1000", ["Fehler__JudgeJobs"] = "false" });
    await service.StartAsync();
    var tokens = await service.PeopleAsync(people);
    var past = File.ReadLines(Path.Combine(demo, "history", "jobs.jsonl")).Select(l => JsonNode.Parse(l)!).ToList();
    var found = await Ids(service, tokens[0]);
    Say($"{found.Sum(f => f.Count())} circuits, {people} people, {minutes} min");

    var (entries, proposals, failed, refused, memory) = (
        new ConcurrentBag<(double At, double Milliseconds)>(),
        new ConcurrentBag<(double At, double Milliseconds)>(),
        0,
        0,
        new List<double>()
    );
    var clock = Stopwatch.StartNew();
    using var over = new CancellationTokenSource(TimeSpan.FromMinutes(minutes));
    var crew = tokens.Select((token, i) => Task.Run(() => Person(i, token))).ToList();
    while (!over.IsCancellationRequested)
    {
        await Task.Delay(TimeSpan.FromSeconds(15));
        memory.Add(service.Megabytes);
    }

    await Task.WhenAll(crew);
    Report("entry on disk", entries.Select(e => e.Milliseconds));
    Report("proposal", proposals.Select(p => p.Milliseconds));
    // All fifty open a job in the first ten seconds; no crew does.
    Report("entry on disk, after the first minute", entries.Where(e => e.At > 60).Select(e => e.Milliseconds));
    Report("proposal, after the first minute", proposals.Where(p => p.At > 60).Select(p => p.Milliseconds));
    Say($"errors {failed}, entries that the rules refused {refused}");
    Say($"memory MB: first {memory.First():0}, half-way {memory[memory.Count / 2]:0}, last {memory.Last():0}, most {memory.Max():0}");

    async Task Person(int number, string token)
    {
        var random = new Random(number);
        using var http = Client(service, token);
        await Task.Delay(random.Next((int)every.TotalMilliseconds));
        string? job = null;
        var (left, first) = (new Queue<JsonNode>(), true);
        while (!over.IsCancellationRequested)
        {
            var begun = Stopwatch.GetTimestamp();
            try
            {
                if (left.Count == 0)
                {
                    var recorded = past[random.Next(past.Count)];
                    var alike = found[recorded["circuit"]!.GetValue<string>()].ToList();
                    var opened = await http.PostAsJsonAsync(
                        "/api/jobs",
                        new { circuitId = alike[random.Next(alike.Count)], complaint = recorded["complaint"]!.GetValue<string>() }
                    );
                    opened.EnsureSuccessStatusCode();
                    job = (await opened.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString();
                    left = new Queue<JsonNode>(recorded["entries"]!.AsArray().Select(e => e!.DeepClone()));
                    first = true;
                }

                var entry = left.Dequeue();
                entry["id"] = Guid.NewGuid().ToString();
                entry.AsObject().Remove("at");
                var at = Stopwatch.GetTimestamp();
                var answer = await http.PostAsync(
                    new Uri($"/api/jobs/{job}/entries?wait=false", UriKind.Relative),
                    new StringContent(entry.ToJsonString(), new MediaTypeHeaderValue("application/json"))
                );
                var took = Stopwatch.GetElapsedTime(at).TotalMilliseconds;
                Count(answer);
                entries.Add((clock.Elapsed.TotalSeconds, took));
                at = Stopwatch.GetTimestamp();
                var diagnosis = await http.GetAsync(new Uri($"/api/jobs/{job}/diagnosis", UriKind.Relative));
                await diagnosis.Content.ReadAsByteArrayAsync();
                Count(diagnosis);
                // The first of a job is worked out while whoever opened it walks to the panel.
                if (!first)
                {
                    proposals.Add((clock.Elapsed.TotalSeconds, Stopwatch.GetElapsedTime(at).TotalMilliseconds));
                }

                first = false;
            }
            catch (Exception e) when (e is HttpRequestException or TaskCanceledException)
            {
                Interlocked.Increment(ref failed);
                Say($"{e.Message}");
            }

            var rest = every - Stopwatch.GetElapsedTime(begun);
            if (rest > TimeSpan.Zero)
            {
                await Task.Delay(rest);
            }
        }
    }

    void Count(HttpResponseMessage answer)
    {
        if ((int)answer.StatusCode is 409 or 422)
        {
            Interlocked.Increment(ref refused);
        }
        else if (!answer.IsSuccessStatusCode)
        {
            Interlocked.Increment(ref failed);
            Say($"{(int)answer.StatusCode} {answer.RequestMessage?.RequestUri?.AbsolutePath}");
        }
    }
}

async Task Kills(int times)
{
    const int writers = 8;
    await BroughtIn(withHistory: false);
    using var service = new Service(app, database, new() { ["Fehler__Demo"] = "true", ["Fehler__JudgeJobs"] = "false" });
    var acknowledged = new ConcurrentDictionary<string, byte>();
    var sent = new ConcurrentDictionary<string, string>();
    var random = new Random(1);
    await service.StartAsync();
    var list = await service.Http.GetFromJsonAsync<JsonElement>("/api/circuits?search=WP-301");
    var written = new List<string>();
    for (var writer = 0; writer < writers; writer++)
    {
        var circuit = list.GetProperty("items")[0].GetProperty("id").GetString();
        var opened = await service.Http.PostAsJsonAsync("/api/jobs", new { circuitId = circuit, complaint = "Hums" });
        written.Add((await opened.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!);
    }

    service.Kill();
    for (var time = 1; time <= times; time++)
    {
        await service.StartAsync();
        using var over = new CancellationTokenSource();
        var work = Enumerable.Range(0, writers).Select(w => Task.Run(() => Write(service.Http, written[w], over.Token))).ToList();
        await Task.Delay(random.Next(1000, 3500));
        service.Kill();
        await over.CancelAsync();
        await Task.WhenAll(work);
        if (time % 10 == 0)
        {
            Say($"killed {time} times, {acknowledged.Count} entries acknowledged");
        }
    }

    // What was sent and not acknowledged is sent again, as a device does: each is there once in the end.
    await service.StartAsync();
    foreach (var (id, path) in sent.Where(s => !acknowledged.ContainsKey(s.Key)))
    {
        (await service.Http.PostAsJsonAsync(path, Note(id))).EnsureSuccessStatusCode();
    }

    service.Kill();
    using var sqlite = new SqliteConnection($"Data Source={database};Pooling=False");
    sqlite.Open();
    var kept = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
    using var command = sqlite.CreateCommand();
    command.CommandText = "SELECT Json FROM Journal WHERE Kind = 'Note'";
    using var reader = command.ExecuteReader();
    while (reader.Read())
    {
        var id = JsonNode.Parse(reader.GetString(0))!["text"]!.GetValue<string>();
        kept[id] = kept.GetValueOrDefault(id) + 1;
    }

    var missing = sent.Keys.Count(id => !kept.ContainsKey(id));
    var (lost, doubled) = (acknowledged.Keys.Count(id => !kept.ContainsKey(id)), kept.Count(k => sent.ContainsKey(k.Key) && k.Value > 1));
    Say(
        $"killed {times} times: {acknowledged.Count} acknowledged at once, {sent.Count} sent; lost {lost}, doubled {doubled}, missing {missing}"
    );

    async Task Write(HttpClient http, string job, CancellationToken over)
    {
        try
        {
            while (!over.IsCancellationRequested)
            {
                var (id, path) = (Guid.NewGuid().ToString(), $"/api/jobs/{job}/entries?wait=false");
                sent[id] = path;
                if ((await http.PostAsJsonAsync(path, Note(id), over)).IsSuccessStatusCode)
                {
                    acknowledged[id] = 0;
                }
            }
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException or JsonException or IOException)
        {
            // It was killed.
        }
    }

    static object Note(string id) =>
        new
        {
            type = "note",
            id,
            text = id,
        };
}

async Task BroughtIn(bool withHistory)
{
    using var first = new Service(
        app,
        database,
        new()
        {
            ["Fehler__DemoFolder"] = demo,
            ["Fehler__DemoHistory"] = withHistory ? "true" : "false",
            ["Fehler__JudgeJobs"] = "false",
        }
    );
    await first.StartAsync();
    first.Kill();
    using var sqlite = new SqliteConnection($"Data Source={database};Pooling=False");
    sqlite.Open();
    using var command = sqlite.CreateCommand();
    command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
    command.ExecuteNonQuery();
}

// Circuits by the tag that they are copies of.
async Task<ILookup<string, string>> Ids(Service service, string token)
{
    using var http = Client(service, token);
    var all = new List<(string Tag, string Id)>();
    for (var skip = 0; ; skip += 200)
    {
        var page = await http.GetFromJsonAsync<JsonElement>($"/api/circuits?take=200&skip={skip}");
        all.AddRange(
            page.GetProperty("items").EnumerateArray().Select(c => (c.GetProperty("tag").GetString()!, c.GetProperty("id").GetString()!))
        );
        if (all.Count >= page.GetProperty("total").GetInt32())
        {
            return all.ToLookup(c => string.Join('-', c.Tag.Split('-').Take(2)), c => c.Id);
        }
    }
}

static HttpClient Client(Service service, string token)
{
    var http = new HttpClient { BaseAddress = service.Http.BaseAddress, Timeout = TimeSpan.FromSeconds(60) };
    http.DefaultRequestHeaders.Authorization = new("Bearer", token);
    return http;
}

static void Report(string what, IEnumerable<double> milliseconds)
{
    var sorted = milliseconds.Order().ToList();
    if (sorted.Count == 0)
    {
        return;
    }

    double At(double share) => sorted[Math.Min(sorted.Count - 1, (int)(share * sorted.Count))];
    Say($"{what}: {sorted.Count}, median {At(0.5):0.0} ms, p95 {At(0.95):0.0} ms, p99 {At(0.99):0.0} ms, most {sorted[^1]:0} ms");
}

static void Say(FormattableString text) => Console.WriteLine(text.ToString(CultureInfo.InvariantCulture));
