using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Drawing;
using Fehler.Core.Jobs;
using Fehler.Core.Language;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Desk;

/// <summary>An answer as the service would give it.</summary>
/// <param name="Status">HTTP status; 404 also for what a device does not answer.</param>
/// <param name="Json">The body.</param>
public readonly record struct FieldAnswer(int Status, string Json);

/// <summary>
/// The service's part of a job, on the device itself: circuits and jobs that were brought along, asked under the addresses of the service and
/// answered with its words. Journals are kept by whoever brings them; here they are only worked with. For one caller at a time.
/// </summary>
public sealed class FieldDesk(TimeProvider time)
{
    /// <summary>Nobody suspects or asks about more at once.</summary>
    private const int MostInQuestion = 500;

    private readonly Dictionary<Guid, FieldPackage> _packages = [];
    private readonly Dictionary<(Guid Circuit, int Version), CompiledCircuit> _compiled = [];
    private readonly Dictionary<Guid, Open> _jobs = [];

    /// <summary>A job that is being worked on.</summary>
    private sealed class Open(FieldJob job, JobState state, History history, DiagnosisSession? session = null)
    {
        private DiagnosisSession? _session = session;
        private ((JobState State, Strategy, Without, bool) Asked, DiagnosisResult Result)? _last;

        public FieldJob Job => job;

        public DiagnosisSession? Kept => _session;

        public JobState State { get; set; } = state;

        public ShownJob Shown => new(job.Id, job.CircuitId, job.Version, job.Title, job.OpenedAt, Sequence, "", State, [], Exercise: null);

        public int Sequence => State.Entries.IsEmpty ? 0 : State.Entries.Max(e => e.Sequence);

        /// <summary>Worked out once for a journal as it stands: what is tried in the drawing asks for the same again.</summary>
        public DiagnosisResult Diagnose(DiagnosisWish wish)
        {
            var asked = (State, wish.Strategy, wish.Without, wish.Learn);
            if (_last is not { } last || last.Asked != asked)
            {
                last = (asked, Session(wish.Learn).Diagnose(State, wish.Strategy, wish.Without, CancellationToken.None));
                _last = last;
            }

            return last.Result;
        }

        /// <summary>Where what is tried next begins: whoever presses a button does not wait for what might be measured.</summary>
        public CircuitState Standing =>
            DiagnosisSession.AtRest(State)
            ?? (_last is { } last && last.Asked.State == State ? last.Result.Standing : Session(DiagnosisWish.Usual.Learn).Standing(State));

        public DiagnosisSession Session(bool learn)
        {
            _session ??= new DiagnosisSession(State.Compiled);
            _session.Learn(learn ? history : History.None);
            return _session;
        }
    }

    /// <summary>Brings a circuit with its open jobs; what was brought of it before is forgotten.</summary>
    /// <exception cref="CircuitException">A version cannot be used.</exception>
    public void Bring(FieldPackage package)
    {
        Forget(package.CircuitId);
        _packages[package.CircuitId] = package;
        foreach (var job in package.Jobs)
        {
            Bring(job);
        }
    }

    /// <summary>Brings a job as the service now has it, in the place of what was known of it.</summary>
    public void Bring(FieldJob job)
    {
        if (!_packages.TryGetValue(job.CircuitId, out var package) || Compiled(package, job.Version) is not { } compiled)
        {
            return;
        }

        var history = (job.History ?? package.Jobs.FirstOrDefault(j => j.Id == job.Id)?.History ?? package.History).Read();
        var state = JobState.Of(compiled, job.Entries);
        // A session follows its journal, whatever that has become: what it has worked out is not thrown away.
        var session = _jobs.TryGetValue(job.Id, out var known) && known.State.Compiled == compiled ? known.Kept : null;
        _jobs[job.Id] = new Open(job, state, history, session);
    }

    /// <summary>Forgets a circuit and its jobs.</summary>
    public void Forget(Guid circuit)
    {
        _packages.Remove(circuit);
        foreach (var key in _compiled.Keys.Where(k => k.Circuit == circuit).ToList())
        {
            _compiled.Remove(key);
        }

        foreach (var (id, _) in _jobs.Where(j => j.Value.Job.CircuitId == circuit).ToList())
        {
            _jobs.Remove(id);
        }
    }

    /// <summary>Answers a request as the service would.</summary>
    /// <param name="method">GET or POST.</param>
    /// <param name="target">Address and query, e.g. <c>/api/jobs/{id}/diagnosis?words=american</c>.</param>
    /// <param name="body">The body, JSON; empty where there is none.</param>
    public FieldAnswer Answer(string method, string target, string body)
    {
        try
        {
            var (path, query) = Query.Of(target);
            return path switch
            {
                ["api", "jobs"] when method == "POST" => OpenJob(Read<OpenJob>(body)),
                ["api", "jobs", var id, .. var rest] when Guid.TryParse(id, out var job) && _jobs.TryGetValue(job, out var open) => OfJob(
                    method,
                    open,
                    rest,
                    query,
                    body
                ),
                ["api", "circuits", var id, .. var rest] when Guid.TryParse(id, out var circuit) && _packages.ContainsKey(circuit) =>
                    OfCircuit(method, _packages[circuit], rest, query, body),
                _ => NotHere,
            };
        }
        catch (RefusedException e)
        {
            return Problem(422, "Not accepted", e.Message);
        }
        catch (JsonException e)
        {
            return Problem(400, "Not accepted", $"The request is not understood at {e.Path ?? "$"}.");
        }
    }

    private FieldAnswer OfJob(string method, Open open, string[] rest, Query query, string body) =>
        (method, rest) switch
        {
            ("GET", []) => Ok(open.Shown.ToView()),
            ("GET", ["screen"]) => Ok(new JobScreen(open.Shown.ToView(), null)),
            ("GET", ["sequence"]) => Ok(open.Sequence),
            ("GET", ["diagnosis"]) => Diagnosis(open, query),
            ("GET", ["report"]) => Ok(open.Shown.Report()),
            ("POST", ["entries"]) => Append(open, Read<JournalEntry>(body)),
            ("POST", ["doubt"]) => Doubt(open, body),
            ("POST", ["operate"]) => Operate(open, Read<OperateCircuit>(body)),
            _ => NotHere,
        };

    private FieldAnswer OfCircuit(string method, FieldPackage package, string[] rest, Query query, string body)
    {
        if (Compiled(package, query.Number("version") ?? package.Newest) is not { } compiled)
        {
            return NotHere;
        }

        return (method, rest) switch
        {
            ("GET", []) => Ok(compiled.ToView(package.CircuitId, query.Number("version") ?? package.Newest)),
            ("GET", ["call"]) => Ok(compiled.ToCallView()),
            ("GET", ["function-test"]) => Ok(compiled.FunctionTest.Steps),
            ("GET", ["reading-sheet"]) => Ok(compiled.ReadingSheet.Rows),
            ("GET", ["in-question"]) => InQuestion(compiled, query),
            ("POST", ["operate"]) => Ok(OperationMapping.Operate(compiled, Steps(Read<OperateCircuit>(body)))),
            ("POST", ["three-lines", "judged"]) => Judged(compiled, Read<ThreeLinesTyped>(body)),
            _ => NotHere,
        };
    }

    private FieldAnswer OpenJob(OpenJob request)
    {
        if (!_packages.TryGetValue(request.CircuitId, out var package) || Compiled(package, package.Newest) is not { } compiled)
        {
            return Problem(404, "Not here", "This circuit was not brought along.");
        }

        var (id, at) = (request.Id ?? Guid.CreateVersion7(), request.At ?? time.GetUtcNow());
        if (!_jobs.TryGetValue(id, out var open))
        {
            var opening = JobOpening.Of(compiled, request);
            var first = EntryTaking.FirstEntries(opening.Complaint, package.Leftovers, opening.Reported);
            var state = EntryTaking.Open(JobState.Of(compiled, []), id, first, at, request.Who.Trim(), time.GetUtcNow());
            open = new Open(new FieldJob(id, request.CircuitId, package.Newest, opening.Complaint, at, []), state, package.History.Read());
            _jobs[id] = open;
        }

        return new FieldAnswer(201, Written(open.Shown.ToView()));
    }

    private FieldAnswer Append(Open open, JournalEntry entry)
    {
        if (open.State.Entries.FirstOrDefault(e => e.Id == entry.Id) is { } known)
        {
            return Ok(new Recorded(known.Sequence, true, open.Shown.ToView(), null));
        }

        var taken = EntryTaking.Take(open.State, entry, open.Sequence + 1, time.GetUtcNow());
        if (taken.Entry is null)
        {
            return Problem(open.State.Closing is not null ? 409 : 422, "Not recorded", taken.Refused!);
        }

        open.State = JobState.Of(open.State.Compiled, open.State.Entries.Append(taken.Entry));
        return Ok(new Recorded(taken.Entry.Sequence, false, open.Shown.ToView(), null));
    }

    private static FieldAnswer Diagnosis(Open open, Query query)
    {
        var wish = DiagnosisWish.Parse(query["strategy"], query["without"], query.Flag("learn"), query["words"]);
        return Ok(new DiagnosisMapping(open.State, wish.Dialect).ToView(open.Diagnose(wish)));
    }

    private FieldAnswer Doubt(Open open, string body) =>
        Read<ReadingAsTyped>(body) is { Typed: not null, Held.IsDefault: false } typed && EntryRules.Refuse(typed, time.GetUtcNow()) is null
            ? Ok(new ReadingDoubt(open.Session(learn: true).Doubt(open.State, typed.Understood())))
            : Ok(new ReadingDoubt(null));

    private static FieldAnswer Operate(Open open, OperateCircuit request)
    {
        var steps = Steps(request);
        if (steps.Length > 0 && open.State.Refuse(new OperationSeen(steps, ImmutableSortedDictionary<string, string>.Empty)) is { } refused)
        {
            return Problem(422, "Not accepted", refused);
        }

        return Ok(
            steps.IsEmpty
                ? OperationMapping.Standing(open.State.Circuit, open.Diagnose(DiagnosisWish.Usual))
                : OperationMapping.Operate(open.State.Compiled, steps, open.Standing)
        );
    }

    private static FieldAnswer InQuestion(CompiledCircuit compiled, Query query)
    {
        var terminals = query.All("at").Take(MostInQuestion).Select(t => TerminalId.TryParse(t, out var terminal) ? terminal : default);
        return Ok(
            DrawingLayout
                .InQuestion(compiled, query.All("unit").Take(MostInQuestion).ToHashSet(), terminals.ToHashSet())
                .Select(CircuitMapping.ToView)
                .ToList()
        );
    }

    private FieldAnswer Judged(CompiledCircuit compiled, ThreeLinesTyped given) =>
        Ok(ThreeLinesVerdict.Of(compiled, given, given.Job is { } id ? _jobs.GetValueOrDefault(id)?.State : null));

    private CompiledCircuit? Compiled(FieldPackage package, int version)
    {
        if (_compiled.TryGetValue((package.CircuitId, version), out var known))
        {
            return known;
        }

        if (package.Versions.FirstOrDefault(v => v.Number == version) is not { } brought)
        {
            return null;
        }

        return _compiled[(package.CircuitId, version)] = CircuitFile.Read(brought.File).Compile();
    }

    private static ImmutableArray<Step> Steps(OperateCircuit request) => request.Steps.IsDefault ? [] : request.Steps;

    private static T Read<T>(string body) =>
        JsonSerializer.Deserialize<T>(body, JournalJson.Options) ?? throw new JsonException("null is not enough.");

    private static string Written<T>(T value) => JsonSerializer.Serialize(value, JournalJson.Options);

    private static FieldAnswer Ok<T>(T value) => new(200, Written(value));

    private static FieldAnswer NotHere { get; } = Problem(404, "Not here", "This needs the service: it was not brought along.");

    private static FieldAnswer Problem(int status, string title, string detail) =>
        new(
            status,
            Written(
                new
                {
                    title,
                    detail,
                    status,
                }
            )
        );

    /// <summary>Address and query of a request.</summary>
    private sealed class Query(ILookup<string, string> values)
    {
        public static (string[] Path, Query Query) Of(string target)
        {
            var mark = target.IndexOf('?', StringComparison.Ordinal);
            var path = mark < 0 ? target : target[..mark];
            var pairs = mark < 0 ? [] : target[(mark + 1)..].Split('&', StringSplitOptions.RemoveEmptyEntries);
            return (
                path.Split('/', StringSplitOptions.RemoveEmptyEntries),
                new Query(
                    pairs
                        .Select(p => p.Split('=', 2))
                        .ToLookup(p => Plain(p[0]), p => p.Length > 1 ? Plain(p[1]) : "", StringComparer.Ordinal)
                )
            );
        }

        public string? this[string name] => values[name].FirstOrDefault();

        public IEnumerable<string> All(string name) => values[name];

        public int? Number(string name) => int.TryParse(this[name], out var number) ? number : null;

        public bool? Flag(string name) => bool.TryParse(this[name], out var flag) ? flag : null;

        private static string Plain(string text) => Uri.UnescapeDataString(text.Replace('+', ' '));
    }
}
