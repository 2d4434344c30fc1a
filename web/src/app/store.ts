import { configureStore, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from '../api/api.ts';
import { storedTheme, type Theme } from './theme.ts';

/** What belongs to this window alone; everything else lives on the server. */
const view = createSlice({
  name: 'view',
  initialState: { theme: storedTheme(), keysOpen: false, settingsOpen: false, said: '' },
  reducers: {
    themeChanged: (state, action: PayloadAction<Theme>) => void (state.theme = action.payload),
    keysShown: (state, action: PayloadAction<boolean>) => void (state.keysOpen = action.payload),
    settingsShown: (state, action: PayloadAction<boolean>) => void (state.settingsOpen = action.payload),
    /** A word at the foot of the page, read out by screen readers. */
    said: (state, action: PayloadAction<string>) => void (state.said = action.payload),
  },
});

export const { themeChanged, keysShown, settingsShown, said } = view.actions;

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, view: view.reducer },
  middleware: (getDefault) => getDefault().concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
