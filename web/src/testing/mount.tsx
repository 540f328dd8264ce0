import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import { App } from "antd";
import type { ReactElement } from "react";
import { MemoryRouter, Route, Routes } from "react-router";

/** Shows a page or a part of one at an address, with all that stands around it: `mount(<Workbench />, "/books/:book/rounds/:round", "/books/1/rounds/7")`. */
export function mount(element: ReactElement, route: string, address: string) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 5_000 } } });
  return render(
    <QueryClientProvider client={client}>
      <App>
        <MemoryRouter initialEntries={[address]}>
          <Routes>
            <Route path={route} element={element} />
            <Route path="*" element={<p>another page</p>} />
          </Routes>
        </MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}
