using UglyToad.PdfPig;
using UglyToad.PdfPig.DocumentLayoutAnalysis.WordExtractor;

// Prints the words of a PDF in their order, for the end-to-end tests, which cannot read PDFs themselves.
using var document = PdfDocument.Open(args[0]);
foreach (var page in document.GetPages())
{
    Console.WriteLine(string.Join(' ', page.GetWords(NearestNeighbourWordExtractor.Instance).Select(word => word.Text)));
}
