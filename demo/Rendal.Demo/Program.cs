using System.Text;
using Rendal.Demo;

// Writes the sample firm's files into the folder named, demo/ by default.
var folder = args.FirstOrDefault() ?? "demo";
foreach (var (name, content) in SampleFirm.Files())
{
    File.WriteAllText(Path.Combine(folder, name), content, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false));
    Console.WriteLine($"{name}: {content.Count(c => c == '\n')} lines");
}
