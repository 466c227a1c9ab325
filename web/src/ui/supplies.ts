/** What each supply is called on screen. */
import type { SupplyColumn } from '../api/client'

export const SUPPLY_WORDS: Record<SupplyColumn['supply'], string> = { water: 'Water', food: 'Food', fuel: 'Fuel' }
